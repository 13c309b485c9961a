<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { storeToRefs } from 'pinia'
import { computed, ref, watch } from 'vue'
import FormField from '../../platform/parts/FormField.vue'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useShows } from '../../show/shows/shows'
import { vOpened } from '../../platform/parts/opened'
import OwnPageForm from './OwnPageForm.vue'
import { useOwnPages } from './ownPages'
import { t } from './messages'

/** Pages beside those that every site has: about, contact, whatever there is to say. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const pages = useOwnPages()
const { list, problem, busy } = storeToRefs(pages)
const show = computed(() => shows.bySlug(props.show)!)
const title = ref('')
const open = ref<string | null>(null)
const unsaved = ref<ReturnType<typeof pages.takeUnsaved>>(null)
const parting = ref<string | null>(null)
watch(
  () => show.value.id,
  id => void pages.load(id),
  { immediate: true },
)

async function create(): Promise<void> {
  if (!(await pages.create(show.value.id, title.value))) return
  title.value = ''
  write(list.value!.pages.at(-1)!.id)
}
function write(id: string): void {
  unsaved.value = pages.takeUnsaved(id)
  // It is taken out where it lay, and lies there again until it is saved.
  if (unsaved.value) pages.keepUnsaved(id, unsaved.value)
  open.value = id
}
function leave(id: string): void {
  pages.dropUnsaved(id)
  open.value = null
}
</script>

<template>
  <PageLayout :heading="t('site')" width="narrow" :waits-for="!list && !problem && t('thePages')">
    <template #beside
      ><a :href="show.pageAddress" target="_blank">{{ t('asVisitorsSeeIt') }}</a></template
    >
    <p class="quiet">
      {{ t('ownPagesHint') }}
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <form class="new flex gap-3 items-end" @submit.prevent="create">
      <FormField v-slot="{ id }" :label="t('titleOfNewPage')">
        <InputText :id="id" v-model="title" maxlength="120" :placeholder="t('titlePlaceholder')" />
      </FormField>
      <Button type="submit" :label="t('createPage')" :disabled="title.trim() === '' || busy" />
    </form>
    <p v-if="list?.pages.length === 0" class="quiet">{{ t('noPages') }}</p>
    <section v-for="page in list?.pages ?? []" :key="page.id" class="spaced" :aria-labelledby="page.id">
      <OwnPageForm
        v-if="open === page.id"
        :page="page"
        :unsaved="unsaved"
        :busy="busy"
        @write="words => pages.keepUnsaved(page.id, words)"
        @save="async change => (await pages.change(show.id, page.id, change)) && (open = null)"
        @close="open = null"
        @cancel="leave(page.id)"
      />
      <template v-else>
        <h2 :id="page.id">{{ page.title }}</h2>
        <p class="actions small quiet">
          <a v-if="page.content" :href="page.address" target="_blank">{{ page.address }}</a>
          <template v-else>{{ t('publicWithContent', { address: page.address }) }}</template>
        </p>
        <div v-if="parting === page.id" v-opened="() => (parting = null)" class="note needs-you" role="alert">
          <p>{{ t('deletePageTells') }}</p>
          <div class="actions">
            <Button type="button" :label="t('delete')" :loading="busy" @click="pages.remove(page.id)" />
            <Button type="button" :label="t('cancel')" text @click="parting = null" />
          </div>
        </div>
        <div v-else class="actions small">
          <button type="button" class="small-button" @click="write(page.id)">{{ t('edit') }}</button>
          <button type="button" class="small-button" @click="parting = page.id">{{ t('delete') }}</button>
        </div>
      </template>
    </section>
  </PageLayout>
</template>

<style scoped>
.new .field {
  flex: 0 1 20rem;
}
section {
  padding-block-start: var(--space-4);
  border-top: 1px solid var(--edge);
}
</style>
