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
  <PageLayout heading="Site" width="narrow" :waits-for="!domain && !problem && 'the domain'">
    <template #beside><a :href="show.pageAddress" target="_blank">As visitors see it</a></template>
    <h2>Custom domain</h2>
    <p class="quiet">
      If you have a domain, the show’s pages and its feed can live there. The current addresses redirect to the new
      ones, and apps follow the feed.
    </p>
    <ProblemNote v-if="problem && !fault" :problem="problem" />
    <template v-if="domain">
      <p v-if="domain.hostName">
        The show lives at <b>{{ domain.hostName }}</b>.
      </p>
      <template v-if="domain.claim">
        <p>
          Add two entries where <b>{{ domain.claim.host }}</b> is managed, then check again. It can take an hour until
          they are visible everywhere.
        </p>
        <ol>
          <li class="my-3">
            <CopyField label="A CNAME record that points here" :text="domain.leadsTo" />
          </li>
          <li class="my-3">
            A TXT record that proves the domain is yours:
            <CopyField label="Its name" :text="domain.claim.record" />
            <CopyField label="Value" :text="domain.claim.word" />
            <p class="small quiet">
              Or, while the domain points to a web server of yours, a file there that contains just this value:
              {{ domain.claim.file }}
            </p>
          </li>
        </ol>
        <div class="actions">
          <Button label="Check again" :loading="busy" @click="prove" />
          <Button label="Cancel" text :disabled="busy" @click="leave" />
        </div>
      </template>
      <form v-else class="spaced" @submit.prevent="claim">
        <FormField
          v-slot="{ id }"
          :label="domain.hostName ? 'Another one' : 'Host name'"
          :fault="fault"
          hint="Such as reeds.example.org"
        >
          <InputText :id="id" v-model="name" autocapitalize="none" spellcheck="false" />
        </FormField>
        <div class="actions">
          <Button type="submit" label="How to verify it" :disabled="name.trim() === '' || busy" />
          <Button
            v-if="domain.hostName && !isLeaving"
            type="button"
            text
            label="Stop using this domain"
            @click="isLeaving = true"
          />
        </div>
      </form>
      <div v-if="isLeaving" v-opened="() => (isLeaving = false)" class="note needs-you" role="alert">
        <p>
          Pages and feed will be back at this server’s address. Anyone who only knows {{ domain.hostName }} will find
          nothing there.
        </p>
        <div class="actions">
          <Button type="button" label="Stop using it" :loading="busy" @click="leave" />
          <Button type="button" label="Keep it" text @click="isLeaving = false" />
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
