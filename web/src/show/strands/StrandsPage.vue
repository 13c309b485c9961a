<script setup lang="ts">
import Button from 'primevue/button'
import MultiSelect from 'primevue/multiselect'
import { storeToRefs } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { NewStrand, Strand } from '@contract/strands'
import CopyField from '../../platform/parts/CopyField.vue'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useShows } from '../shows/shows'
import { vOpened } from '../../platform/parts/opened'
import StrandForm from './StrandForm.vue'
import { useStrands } from './strands'
import { FormattedMessage, t } from './messages'

/** Groups of a show's episodes, each with a feed of its own. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const strands = useStrands()
const { list, problem, busy } = storeToRefs(strands)
const show = computed(() => shows.bySlug(props.show)!)
const open = ref<string | null>(null)
/** The one that somebody is about to take away. */
const parting = ref<string | null>(null)
watch(
  () => show.value.id,
  id => void strands.load(id),
  { immediate: true },
)

const choices = computed(() =>
  (list.value?.episodes ?? []).map(({ id, title, number }) => ({
    id,
    words: `${number === null ? '' : `${number} `}${title || t('withoutATitle')}`,
  })),
)
const taken = computed(() => problem.value?.faults?.find(({ field }) => field === 'slug')?.rule)

async function save(strand: Strand | null, { slug, ...facts }: NewStrand): Promise<void> {
  const isSaved = strand
    ? await strands.change(strand.id, { ...facts, version: strand.version })
    : await strands.create(show.value.id, { slug, ...facts })
  if (isSaved) open.value = null
}
const goesBy = ({ goesBy: way, value }: Strand): string => t('goesBy', { way, value: value ?? '' })
</script>

<template>
  <PageLayout :heading="t('strands')" :waits-for="!list && !problem && t('theStrands')">
    <template #beside>
      <Button v-if="open !== 'new'" type="button" :label="t('newStrand')" @click="open = 'new'" />
    </template>
    <template #purpose>
      {{ t('strandsHint') }}
    </template>
    <StrandForm
      v-if="open === 'new'"
      v-opened="() => (open = null)"
      :strand="null"
      :feed-address="show.feedAddress"
      :busy="busy"
      :taken="taken"
      @save="strand => save(null, strand)"
      @cancel="open = null"
    />
    <ProblemNote v-if="problem && !taken" :problem="problem" />
    <p v-if="list?.strands.length === 0 && open !== 'new'" class="quiet">{{ t('noStrands') }}</p>
    <section
      v-for="strand in list?.strands ?? []"
      :key="strand.id"
      class="strand flex gap-4 items-start"
      :aria-labelledby="strand.id"
    >
      <StrandForm
        v-if="open === strand.id"
        v-opened="() => (open = null)"
        :strand="strand"
        :feed-address="show.feedAddress"
        :busy="busy"
        :taken="undefined"
        @save="facts => save(strand, facts)"
        @cancel="open = null"
      />
      <template v-else>
        <img
          class="flex-none rounded"
          :src="strand.artworkAddress"
          :alt="t('artworkOf', { name: strand.name })"
          width="72"
          height="72"
        />
        <div class="facts spaced flex-1 min-w-0 justify-items-start">
          <h2 class="text-l wrap-anywhere" :id="strand.id">{{ strand.name }}</h2>
          <p class="quiet small">
            {{ t('strandHolds', { by: goesBy(strand), count: strand.released }) }}
          </p>
          <p v-if="strand.description">{{ strand.description }}</p>
          <p v-if="strand.isPrivate">
            <FormattedMessage of="privateToThose"
              ><template #link="{ words }"
                ><RouterLink :to="{ name: 'private-feeds', params: { show: show.slug } }">{{
                  words
                }}</RouterLink></template
              ></FormattedMessage
            >
          </p>
          <CopyField v-else :label="t('addressOfItsFeed')" :text="strand.feedAddress" />
          <MultiSelect
            v-if="strand.goesBy === 'hand'"
            :model-value="strand.episodeIds"
            :options="choices"
            option-label="words"
            option-value="id"
            filter
            :max-selected-labels="2"
            :selected-items-label="t('countChosen')"
            :placeholder="t('chooseItsEpisodes')"
            :aria-label="t('episodesOf', { name: strand.name })"
            :virtual-scroller-options="{ itemSize: 38 }"
            @update:model-value="ids => strands.choose(strand.id, ids)"
          />
          <div v-if="parting === strand.id" v-opened="() => (parting = null)" class="note needs-you" role="alert">
            <p>
              {{ t('deleteStrandTells', { private: strand.isPrivate ? 'yes' : 'no' }) }}
            </p>
            <div class="actions">
              <Button type="button" :label="t('delete')" :loading="busy" @click="strands.remove(strand.id)" />
              <Button type="button" :label="t('cancel')" text @click="parting = null" />
            </div>
          </div>
          <div v-else class="actions small">
            <button type="button" class="small-button" @click="open = strand.id">{{ t('changeIt') }}</button>
            <button type="button" class="small-button" @click="parting = strand.id">{{ t('delete') }}</button>
          </div>
        </div>
      </template>
    </section>
  </PageLayout>
</template>

<style scoped>
.strand > form {
  flex: 1;
}
</style>
