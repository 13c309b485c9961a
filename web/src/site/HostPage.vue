<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { storeToRefs } from 'pinia'
import { computed, ref, watch } from 'vue'
import CopyField from '../parts/CopyField.vue'
import FormField from '../parts/FormField.vue'
import ProblemNote from '../parts/ProblemNote.vue'
import { useShows } from '../show/shows'
import { vOpened } from '../parts/opened'
import { useHost } from './host'
import SiteHead from './SiteHead.vue'

/** A host name of the show's own, proved, so that nobody takes another's. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const hosts = useHost()
const { host, problem, busy } = storeToRefs(hosts)
const show = computed(() => shows.bySlug(props.show)!)
const name = ref('')
const isLeaving = ref(false)
watch(
  () => show.value.id,
  id => void hosts.load(id),
  { immediate: true },
)
const fault = computed(() => problem.value?.faults?.find(({ field }) => field === 'host')?.rule)

async function claim(): Promise<void> {
  if (await hosts.claim(show.value.id, name.value)) name.value = ''
}
async function prove(): Promise<void> {
  if (await hosts.prove(show.value.id)) await shows.refresh()
}
async function leave(): Promise<void> {
  isLeaving.value = false
  if (await hosts.leave(show.value.id)) await shows.refresh()
}
</script>

<template>
  <div class="page">
    <SiteHead id="site-name" :show="show" />
    <h2>A host name of its own</h2>
    <p class="quiet">
      Where you have a domain, the show’s pages and its feed can live there. What is there now leads to the new place,
      and apps take the feed along.
    </p>
    <ProblemNote v-if="problem && !fault" :problem="problem" />
    <template v-if="host">
      <p v-if="host.hostName">
        The show lives at <b>{{ host.hostName }}</b>.
      </p>
      <template v-if="host.claim">
        <p>
          Two entries where <b>{{ host.claim.host }}</b> is looked after, then look again. It can take an hour until
          they are seen everywhere.
        </p>
        <ol>
          <li>
            <CopyField label="A CNAME record, so that it leads here" :text="host.leadsTo" />
          </li>
          <li>
            A TXT record, so that nobody can take it but you:
            <CopyField label="Its name" :text="host.claim.record" />
            <CopyField label="What it says" :text="host.claim.word" />
            <p class="small quiet">
              Or, as long as the name leads to a web server of yours, a file there with just that in it:
              {{ host.claim.file }}
            </p>
          </li>
        </ol>
        <div class="actions">
          <Button label="Look again" :loading="busy" @click="prove" />
          <Button label="Leave it" text :disabled="busy" @click="leave" />
        </div>
      </template>
      <form v-else @submit.prevent="claim">
        <FormField
          v-slot="{ id }"
          :label="host.hostName ? 'Another one' : 'Host name'"
          :fault="fault"
          hint="Such as reeds.example.org"
        >
          <InputText :id="id" v-model="name" autocapitalize="none" spellcheck="false" />
        </FormField>
        <div class="actions">
          <Button type="submit" label="How to prove it" :disabled="name.trim() === '' || busy" />
          <Button v-if="host.hostName && !isLeaving" type="button" text label="Give it up" @click="isLeaving = true" />
        </div>
      </form>
      <div v-if="isLeaving" v-opened="() => (isLeaving = false)" class="note needs-you" role="alert">
        <p>
          Pages and feed are at the house’s address again then. Whoever knows only {{ host.hostName }} finds nothing
          there.
        </p>
        <div class="actions">
          <Button type="button" label="Give it up" :loading="busy" @click="leave" />
          <Button type="button" label="Keep it" text @click="isLeaving = false" />
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--space-3);
  max-width: 46rem;
  padding: var(--space-5);
}
form {
  display: grid;
  gap: var(--space-3);
  max-width: 26rem;
}
li {
  margin-block: var(--space-3);
}
</style>
