<script setup lang="ts">
import Button from 'primevue/button'
import SelectButton from 'primevue/selectbutton'
import ToggleSwitch from 'primevue/toggleswitch'
import { storeToRefs } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { CommentState } from '@core/comments/comment'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useShows } from '../../show/shows/shows'
import CommentRow from './CommentRow.vue'
import { useComments } from './comments'
import { t } from './messages'

/** Comments: read here first, and shown on the episode's page when the maker says so. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const comments = useComments()
const { list, problem, busy } = storeToRefs(comments)
const show = computed(() => shows.bySlug(props.show)!)

const states: readonly { words: string; state: CommentState | undefined }[] = [
  { words: t('all'), state: undefined },
  { words: t('waiting'), state: 'waiting' },
  { words: t('shown'), state: 'shown' },
  { words: t('hidden'), state: 'hidden' },
]
const chosen = ref(states[0]!)
watch(
  // Each for itself: another state of the same show is no reason to load what is there once more.
  [() => show.value.id, chosen] as const,
  ([id, { state }]) => void comments.load(id, state),
  { immediate: true },
)
</script>

<template>
  <PageLayout :heading="t('site')" width="narrow" :waits-for="!list && !problem && t('theComments')">
    <template #beside
      ><a :href="show.pageAddress" target="_blank">{{ t('asVisitorsSeeIt') }}</a></template
    >
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="list">
      <p class="open side-by-side gap-3">
        <ToggleSwitch
          input-id="takes"
          :model-value="list.takesComments"
          :disabled="busy"
          @update:model-value="isOpen => comments.open(show.id, isOpen)"
        />
        <label for="takes">{{ t('listenersMayWrite') }}</label>
      </p>
      <p class="small quiet">
        {{ t('commentsHint') }}
      </p>
      <template v-if="list.takesComments || list.comments.length || chosen.state">
        <header class="row flowing gap-4">
          <SelectButton
            v-model="chosen"
            :options="[...states]"
            option-label="words"
            :allow-empty="false"
            :aria-label="t('which')"
            size="small"
          />
          <span v-if="list.waiting" class="waiting urgent">{{ t('countToRead', { count: list.waiting }) }}</span>
          <a class="small-button ms-auto" :href="`/api/v1/shows/${show.id}/comments.csv`" download>{{
            t('exportAsCsv')
          }}</a>
        </header>
        <p v-if="list.comments.length === 0" class="quiet">
          {{ chosen.state ? t('noneOfThese') : t('noCommentsYet') }}
        </p>
        <ol class="unlisted">
          <CommentRow
            v-for="comment in list.comments"
            :key="comment.id"
            :comment="comment"
            :zone="show.zone"
            :busy="busy"
            @change="wanted => comments.change(comment, wanted)"
          />
        </ol>
        <Button v-if="list.after" :label="t('olderOnes')" text @click="comments.more(show.id, chosen.state)" />
      </template>
    </template>
  </PageLayout>
</template>

<style scoped>
.row :deep(.p-selectbutton) {
  flex-wrap: wrap;
}
</style>
