<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed, reactive, ref } from 'vue'
import { type ShowChange, showChange } from '@contract/shows'
import { categories } from '@core/feed/categories'
import { type FeedFacts, media } from '@core/feed/facts'
import AddressForm from './AddressForm.vue'
import FormField from '../../platform/parts/FormField.vue'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useSave } from '../../platform/parts/attempt'
import { useShows } from '../../show/shows/shows'
import RowsField from './RowsField.vue'
import SaveOutlook from './SaveOutlook.vue'

/** What a feed can say beside what every feed says. All of it may stay as it is. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const show = computed(() => shows.bySlug(props.show)!)
const facts = reactive(JSON.parse(JSON.stringify(show.value.feedFacts)) as FeedFacts)
const keywords = ref(facts.keywords.join(', '))
const form = ref<HTMLFormElement>()
const { problem, busy, saved, fault: faultOf, save } = useSave(form)
const outlook = ref<InstanceType<typeof SaveOutlook>>()

const fault = (field: string): string | undefined => faultOf(`feedFacts.${field}`)
const faultIn = (field: string) => (part: string) => fault(`${field}.${part}`)
/** What is not filled in is not said. */
const orNull = (words: string | undefined): string | null => (words?.trim() ? words : null)

const texts = [
  { key: 'site', label: 'The show’s own site', hint: 'If it has one elsewhere; otherwise the public page here.' },
  { key: 'ownerName', label: 'Owner’s name', hint: 'If different from the author.' },
  { key: 'copyright', label: 'Copyright', hint: '' },
  { key: 'licence', label: 'Licence', hint: 'Such as cc-by-4.0, or a name and its web address.' },
  { key: 'place', label: 'The place it is about', hint: '' },
  { key: 'webmaster', label: 'Email for technical questions', hint: '' },
] as const
const categoryOptions = [
  { name: 'None', value: null },
  ...Object.entries(categories).flatMap(([category, subcategories]) => [
    { name: category, value: `${category}\n` },
    ...subcategories.map(subcategory => ({
      name: `${category}, ${subcategory}`,
      value: `${category}\n${subcategory}`,
    })),
  ]),
]
const secondCategory = computed({
  get: () =>
    facts.secondCategory ? `${facts.secondCategory.category}\n${facts.secondCategory.subcategory ?? ''}` : null,
  set: chosen => {
    const [category, subcategory] = (chosen ?? '').split('\n')
    facts.secondCategory = category ? { category, subcategory: subcategory || null } : null
  },
})

async function keep(): Promise<void> {
  facts.keywords = keywords.value
    .split(',')
    .map(word => word.trim())
    .filter(word => word !== '')
  const change: ShowChange = { feedFacts: facts, version: show.value.version }
  await save(showChange, change, async () => {
    if (!(await outlook.value!.ask(change))) return false
    await shows.change(show.value.id, change)
  })
}
</script>

<template>
  <PageLayout heading="More feed settings">
    <template #purpose>Most shows need none of these. Empty fields are left out.</template>
    <form ref="form" novalidate @submit.prevent="keep">
      <FormField
        v-for="{ key, label, hint } in texts"
        :key="key"
        v-slot="{ id }"
        :label="label"
        :hint="hint"
        :fault="fault(key)"
      >
        <InputText
          :id="id"
          :model-value="facts[key] ?? ''"
          :invalid="!!fault(key)"
          @update:model-value="words => (facts[key] = orNull(words))"
        />
      </FormField>
      <FormField v-slot="{ id }" label="A second category" :fault="fault('secondCategory')">
        <Select
          v-model="secondCategory"
          :label-id="id"
          :aria-labelledby="`${id}-name`"
          :options="categoryOptions"
          option-label="name"
          option-value="value"
          placeholder="None"
          filter
          auto-filter-focus
        />
      </FormField>
      <FormField
        v-slot="{ id }"
        label="Keywords"
        hint="Separate with commas; some directories read them."
        :fault="fault('keywords')"
      >
        <InputText :id="id" v-model="keywords" :invalid="!!fault('keywords')" />
      </FormField>
      <FormField v-slot="{ id }" label="What is in it" :fault="fault('medium')">
        <Select v-model="facts.medium" :label-id="id" :aria-labelledby="`${id}-name`" :options="[...media]" />
      </FormField>
      <FormField
        v-slot="{ id }"
        label="Episodes in the feed"
        hint="Leave empty for all. Older ones go into further parts that apps can request."
        :fault="fault('itemsPerPart')"
      >
        <InputNumber
          v-model="facts.itemsPerPart"
          :input-id="id"
          :invalid="!!fault('itemsPerPart')"
          :use-grouping="false"
        />
      </FormField>
      <RowsField
        v-model="facts.funding"
        class="wide"
        label="Donation links"
        hint="Apps show them as a link."
        :columns="[
          { key: 'words', label: 'Words' },
          { key: 'address', label: 'Address' },
        ]"
        :empty="{ words: '', address: '' }"
        add="Add one"
        :fault="faultIn('funding')"
      />
      <RowsField
        v-model="facts.seasonNames"
        class="wide"
        label="Names of seasons"
        hint="Apps show them above the episodes of each."
        :columns="[
          { key: 'season', label: 'Season', isNumber: true },
          { key: 'name', label: 'Name' },
        ]"
        :empty="{ season: facts.seasonNames.length + 1, name: '' }"
        add="Name a season"
        :fault="faultIn('seasonNames')"
      />
      <RowsField
        v-model="facts.recommends"
        class="wide"
        label="Shows that you recommend"
        hint="Some apps offer them to your listeners."
        :columns="[
          { key: 'title', label: 'Show' },
          { key: 'feedAddress', label: 'Address of its feed' },
        ]"
        :empty="{ title: '', feedAddress: '' }"
        add="Add a show"
        :fault="faultIn('recommends')"
      />
      <RowsField
        v-model="facts.statements"
        class="wide"
        label="Statements"
        hint="Text that a service asks you to add, to prove that the feed is yours."
        :columns="[
          { key: 'purpose', label: 'What for' },
          { key: 'words', label: 'Words' },
        ]"
        :empty="{ purpose: '', words: '' }"
        add="Add one"
        :fault="faultIn('statements')"
      />
      <fieldset class="wide choices spaced gap-3 m-0 p-0 border-0">
        <legend class="field-name p-0">Import and moving</legend>
        <label
          ><Checkbox v-model="facts.isLocked" binary /> Locked: other hosts may not import it without your
          consent</label
        >
        <label><Checkbox v-model="facts.isBlocked" binary /> Not for directories: they are asked not to list it</label>
        <label
          ><Checkbox v-model="facts.isComplete" binary /> Complete: nothing more will be added, and apps stop
          checking</label
        >
        <FormField
          v-slot="{ id }"
          label="It has moved to"
          hint="The address of the new feed. Apps go there and stay there; leave it empty while the show lives here."
          :fault="fault('movedTo')"
        >
          <InputText
            :id="id"
            :model-value="facts.movedTo ?? ''"
            :invalid="!!fault('movedTo')"
            @update:model-value="words => (facts.movedTo = orNull(words))"
          />
        </FormField>
        <label v-if="facts.movedTo"
          ><Checkbox v-model="facts.isRedirected" binary /> Redirect everybody there at once; this feed is no longer
          read</label
        >
      </fieldset>
      <ProblemNote v-if="problem" class="wide" :problem="problem" />
      <div class="wide actions">
        <Button type="submit" label="Save" :loading="busy" />
        <RouterLink :to="{ name: 'feed', params: { show: show.slug } }">Back to the feed</RouterLink>
        <span v-if="saved" class="quiet" role="status">Saved.</span>
      </div>
    </form>
    <AddressForm :show="show" />
    <SaveOutlook ref="outlook" :show="show" />
  </PageLayout>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: var(--space-4) var(--space-5);
}
.wide {
  grid-column: 1 / -1;
}
.choices > label {
  display: flex;
  gap: var(--space-2);
  align-items: center;
  min-height: 24px;
}
@media (max-width: 40rem) {
  form {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
