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
import { t } from './messages'

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
  { key: 'site', label: t('ownSite'), hint: t('ownSiteHint') },
  { key: 'ownerName', label: t('ownerName'), hint: t('ownerNameHint') },
  { key: 'copyright', label: t('copyright'), hint: '' },
  { key: 'licence', label: t('licence'), hint: t('licenceHint') },
  { key: 'place', label: t('placeItIsAbout'), hint: '' },
  { key: 'webmaster', label: t('technicalEmail'), hint: '' },
] as const
const categoryOptions = [
  { name: t('none'), value: null },
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
  <PageLayout :heading="t('moreFeedSettings')">
    <template #purpose>{{ t('feedFactsHint') }}</template>
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
      <FormField v-slot="{ id }" :label="t('aSecondCategory')" :fault="fault('secondCategory')">
        <Select
          v-model="secondCategory"
          :label-id="id"
          :aria-labelledby="`${id}-name`"
          :options="categoryOptions"
          option-label="name"
          option-value="value"
          :placeholder="t('none')"
          filter
          auto-filter-focus
        />
      </FormField>
      <FormField v-slot="{ id }" :label="t('keywords')" :hint="t('keywordsHint')" :fault="fault('keywords')">
        <InputText :id="id" v-model="keywords" :invalid="!!fault('keywords')" />
      </FormField>
      <FormField v-slot="{ id }" :label="t('medium')" :fault="fault('medium')">
        <Select v-model="facts.medium" :label-id="id" :aria-labelledby="`${id}-name`" :options="[...media]" />
      </FormField>
      <FormField
        v-slot="{ id }"
        :label="t('episodesInTheFeed')"
        :hint="t('feedLengthHint')"
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
        :label="t('donationLinks')"
        :hint="t('donationsHint')"
        :columns="[
          { key: 'words', label: t('words') },
          { key: 'address', label: t('address') },
        ]"
        :empty="{ words: '', address: '' }"
        :add="t('addOne')"
        :fault="faultIn('funding')"
      />
      <RowsField
        v-model="facts.seasonNames"
        class="wide"
        :label="t('namesOfSeasons')"
        :hint="t('seasonNamesHint')"
        :columns="[
          { key: 'season', label: t('season'), isNumber: true },
          { key: 'name', label: t('name') },
        ]"
        :empty="{ season: facts.seasonNames.length + 1, name: '' }"
        :add="t('nameASeason')"
        :fault="faultIn('seasonNames')"
      />
      <RowsField
        v-model="facts.recommends"
        class="wide"
        :label="t('showsThatYouRecommend')"
        :hint="t('recommendationsHint')"
        :columns="[
          { key: 'title', label: t('show') },
          { key: 'feedAddress', label: t('addressOfItsFeed') },
        ]"
        :empty="{ title: '', feedAddress: '' }"
        :add="t('addAShow')"
        :fault="faultIn('recommends')"
      />
      <RowsField
        v-model="facts.statements"
        class="wide"
        :label="t('statements')"
        :hint="t('statementsHint')"
        :columns="[
          { key: 'purpose', label: t('whatFor') },
          { key: 'words', label: t('words') },
        ]"
        :empty="{ purpose: '', words: '' }"
        :add="t('addOne')"
        :fault="faultIn('statements')"
      />
      <fieldset class="wide choices spaced gap-3 m-0 p-0 border-0">
        <legend class="field-name p-0">{{ t('importAndMoving') }}</legend>
        <label><Checkbox v-model="facts.isLocked" binary /> {{ t('isLocked') }}</label>
        <label><Checkbox v-model="facts.isBlocked" binary /> {{ t('isBlocked') }}</label>
        <label><Checkbox v-model="facts.isComplete" binary /> {{ t('isComplete') }}</label>
        <FormField v-slot="{ id }" :label="t('itHasMovedTo')" :hint="t('movedToHint')" :fault="fault('movedTo')">
          <InputText
            :id="id"
            :model-value="facts.movedTo ?? ''"
            :invalid="!!fault('movedTo')"
            @update:model-value="words => (facts.movedTo = orNull(words))"
          />
        </FormField>
        <label v-if="facts.movedTo"><Checkbox v-model="facts.isRedirected" binary /> {{ t('isRedirected') }}</label>
      </fieldset>
      <ProblemNote v-if="problem" class="wide" :problem="problem" />
      <div class="wide actions">
        <Button type="submit" :label="t('save')" :loading="busy" />
        <RouterLink :to="{ name: 'feed', params: { show: show.slug } }">{{ t('backToTheFeed') }}</RouterLink>
        <span v-if="saved" class="quiet" role="status">{{ t('savedNote') }}</span>
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
