<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, onMounted, reactive, ref } from 'vue'
import { type Show, type ShowChange, showChange } from '@contract/shows'
import { patternFault, patternTitle } from '@core/episode/titlePattern'
import SaveOutlook from '../../feed/feeds/SaveOutlook.vue'
import LinksField from '../../words/writing/LinksField.vue'
import NotesEditor from '../../words/writing/NotesEditor.vue'
import PeopleField from '../../words/writing/PeopleField.vue'
import TagsField from '../../words/writing/TagsField.vue'
import FormField from '../../platform/parts/FormField.vue'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useSave } from '../../platform/parts/attempt'
import { useShows } from '../../show/shows/shows'
import { useVocabulary } from '../../show/shows/vocabulary'
import { t } from './messages'

/** What a show has ready for its episodes, so that none begins on an empty sheet. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const vocabulary = useVocabulary()
const show = computed<Show>(() => shows.bySlug(props.show)!)
const { titlePattern, notesTemplate, usualLinks, usualTags, hosts } = show.value
const habits = reactive({ titlePattern, notesTemplate, usualLinks, usualTags, hosts })
const notes = ref<InstanceType<typeof NotesEditor>>()
const form = ref<HTMLElement>()
const { problem, busy, saved, fault, save } = useSave(form)
const outlook = ref<InstanceType<typeof SaveOutlook>>()
onMounted(() => vocabulary.load(show.value.id))

const sample = computed(() =>
  patternFault(habits.titlePattern)
    ? null
    : patternTitle(habits.titlePattern, { title: t('exampleTitle'), number: 37, season: 2 }, show.value.name),
)

async function keep(): Promise<void> {
  const change: ShowChange = { ...habits, version: show.value.version }
  await save(showChange, change, async () => {
    if (!(await outlook.value!.ask(change))) return false
    await shows.change(show.value.id, change)
  })
}
</script>

<template>
  <PageLayout :heading="t('defaultsForNewEpisodes')">
    <template #purpose>
      {{ t('habitsHint') }}
    </template>
    <div ref="form" class="stacked gap-4">
      <FormField
        v-slot="{ id }"
        :label="t('titles')"
        :fault="fault('titlePattern') ?? patternFault(habits.titlePattern) ?? undefined"
        :hint="sample ? t('titlesHint', { sample }) : ''"
      >
        <InputText :id="id" v-model="habits.titlePattern" :invalid="!!patternFault(habits.titlePattern)" />
      </FormField>
      <PeopleField v-model="habits.hosts" :known="vocabulary.people" first-role="Host" :fault="fault('hosts', true)" />
      <NotesEditor
        ref="notes"
        v-model="habits.notesTemplate"
        :revision="0"
        :label="t('template')"
        :placeholder="t('templatePlaceholder')"
        :fault="fault('notesTemplate', true)"
      />
      <LinksField
        v-model="habits.usualLinks"
        :usual="[]"
        :label="t('usualLinks')"
        :fault="fault('usualLinks', true)"
        @insert="link => notes?.insertLink(link)"
      />
      <TagsField
        v-model="habits.usualTags"
        :used="vocabulary.tags"
        :usual="[]"
        :label="t('usualTags')"
        :fault="fault('usualTags', true)"
      />
      <ProblemNote v-if="problem" :problem="problem" />
      <div class="actions">
        <Button type="button" :label="t('save')" :loading="busy" @click="keep" />
        <span v-if="saved" class="quiet" role="status">{{ t('savedNote') }}</span>
      </div>
    </div>
    <SaveOutlook ref="outlook" :show="show" />
  </PageLayout>
</template>
