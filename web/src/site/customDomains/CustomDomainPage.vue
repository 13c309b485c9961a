<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { storeToRefs } from 'pinia'
import { computed, ref, watch } from 'vue'
import CopyField from '../../platform/parts/CopyField.vue'
import FormField from '../../platform/parts/FormField.vue'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useShows } from '../../show/shows/shows'
import { vOpened } from '../../platform/parts/opened'
import { useCustomDomain } from './customDomain'
import { FormattedMessage, t } from './messages'

/** A host name of the show's own, proved, so that nobody takes another's. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const domains = useCustomDomain()
const { domain, problem, busy } = storeToRefs(domains)
const show = computed(() => shows.bySlug(props.show)!)
const name = ref('')
const isLeaving = ref(false)
watch(
  () => show.value.id,
  id => void domains.load(id),
  { immediate: true },
)
const fault = computed(() => problem.value?.faults?.find(({ field }) => field === 'host')?.rule)

async function claim(): Promise<void> {
  if (await domains.claim(show.value.id, name.value)) name.value = ''
}
async function prove(): Promise<void> {
  if (await domains.prove(show.value.id)) await shows.refresh()
}
async function leave(): Promise<void> {
  isLeaving.value = false
  if (await domains.leave(show.value.id)) await shows.refresh()
}
</script>

<template>
  <PageLayout :heading="t('site')" width="narrow" :waits-for="!domain && !problem && t('theDomain')">
    <template #beside
      ><a :href="show.pageAddress" target="_blank">{{ t('asVisitorsSeeIt') }}</a></template
    >
    <h2>{{ t('customDomain') }}</h2>
    <p class="quiet">
      {{ t('domainHint') }}
    </p>
    <ProblemNote v-if="problem && !fault" :problem="problem" />
    <template v-if="domain">
      <p v-if="domain.hostName">
        <FormattedMessage of="livesAt" :values="{ host: domain.hostName }" />
      </p>
      <template v-if="domain.claim">
        <p>
          <FormattedMessage of="addTwoEntries" :values="{ host: domain.claim.host }" />
        </p>
        <ol>
          <li class="my-3">
            <CopyField :label="t('cnameRecord')" :text="domain.leadsTo" />
          </li>
          <li class="my-3">
            {{ t('txtRecord') }}
            <CopyField :label="t('itsName')" :text="domain.claim.record" />
            <CopyField :label="t('value')" :text="domain.claim.word" />
            <p class="small quiet">
              {{ t('proofFileHint', { file: domain.claim.file }) }}
            </p>
          </li>
        </ol>
        <div class="actions">
          <Button :label="t('checkAgain')" :loading="busy" @click="prove" />
          <Button :label="t('cancel')" text :disabled="busy" @click="leave" />
        </div>
      </template>
      <form v-else class="spaced" @submit.prevent="claim">
        <FormField
          v-slot="{ id }"
          :label="domain.hostName ? t('anotherOne') : t('hostName')"
          :fault="fault"
          :hint="t('hostNameHint')"
        >
          <InputText :id="id" v-model="name" autocapitalize="none" spellcheck="false" />
        </FormField>
        <div class="actions">
          <Button type="submit" :label="t('howToVerifyIt')" :disabled="name.trim() === '' || busy" />
          <Button
            v-if="domain.hostName && !isLeaving"
            type="button"
            text
            :label="t('stopUsingThisDomain')"
            @click="isLeaving = true"
          />
        </div>
      </form>
      <div v-if="isLeaving" v-opened="() => (isLeaving = false)" class="note needs-you" role="alert">
        <p>
          {{ t('stopUsingTells', { host: domain.hostName! }) }}
        </p>
        <div class="actions">
          <Button type="button" :label="t('stopUsingIt')" :loading="busy" @click="leave" />
          <Button type="button" :label="t('keepIt')" text @click="isLeaving = false" />
        </div>
      </div>
    </template>
  </PageLayout>
</template>

<style scoped>
form {
  gap: var(--space-3);
  max-width: 26rem;
}
</style>
