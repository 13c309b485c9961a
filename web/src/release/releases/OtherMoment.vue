<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import { computed, ref } from 'vue'
import type { Episode, WallMoment } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { wallTime } from '@core/release/moment'
import { steps } from '@core/release/status'
import MomentFields from '../../platform/time/MomentFields.vue'
import MomentThere from '../../platform/time/MomentThere.vue'
import { useNow } from '../../platform/time/now'
import { pickedOf, readPicked } from '../../platform/time/wallMoment'
import { zonesToChoose } from '../../platform/time/zones'
import { t } from './messages'

/** Another date of an episode that is out, or the day on which it leaves the feed. Says what apps make of it. */
const props = defineProps<{ about: 'date' | 'end'; episode: Episode; show: Show; busy: boolean }>()
const emit = defineEmits<{
  set: [when: WallMoment, keepsPage: boolean]
  now: [keepsPage: boolean]
  drop: []
  cancel: []
}>()
const now = useNow()
const { zone } = props.show
const zones = zonesToChoose(zone, props.show.listenerZones)
const first = computed(() => (props.about === 'date' ? props.episode.releaseAt : props.episode.retireAt))
const weekMs = 7 * 24 * 3600_000
/** Where nothing was chosen yet: in a week, at the time of day at which it went out. */
const begun = (): string =>
  first.value
    ? wallTime(new Date(first.value), zone)
    : wallTime(new Date(+now.value + weekMs), zone).slice(0, 11) +
      wallTime(new Date(props.episode.releaseAt!), zone).slice(11)
const picked = ref(pickedOf(begun(), zone))
const keepsPage = ref(props.episode.keepsPage)

const read = computed(() => readPicked(picked.value))
const fault = computed(() => {
  const { at } = read.value
  if (!at) return undefined
  if (props.about === 'date') return at > now.value ? t('pastDateRule') : undefined
  return at <= now.value ? t('pastEndRule') : undefined
})
const isSame = computed(() => read.value.at !== null && +read.value.at === +new Date(first.value ?? 0))
const effect = computed(() => (props.about === 'date' ? steps.redate.effect : steps.retire.effect))
</script>

<template>
  <form
    class="other flex flex-wrap gap-x-4 gap-y-2 items-end"
    @submit.prevent="read.meant && emit('set', read.meant, keepsPage)"
  >
    <MomentFields v-model="picked" :zones="zones" />
    <label v-if="about === 'end'" class="small side-by-side">
      <Checkbox v-model="keepsPage" binary size="small" />
      {{ t('keepsPage') }}
    </label>
    <p class="small" role="status">
      <template v-if="fault"
        ><strong>{{ fault }}</strong></template
      >
      <MomentThere
        v-else-if="read.at"
        :at="read.at"
        :zone="zone"
        :others="zones.filter(each => each !== zone && each !== 'UTC')"
      />
      <span class="effect quiet block">{{ effect }}</span>
    </p>
    <div class="actions">
      <Button
        type="submit"
        :label="about === 'date' ? t('changeTheDate') : t('removeAtThisTime')"
        :disabled="!read.at || !!fault || (isSame && keepsPage === episode.keepsPage)"
        :loading="busy"
      />
      <Button v-if="about === 'end'" type="button" :label="t('removeItNow')" outlined @click="emit('now', keepsPage)" />
      <Button
        v-if="about === 'end' && episode.retireAt"
        type="button"
        :label="t('keepItInTheFeed')"
        outlined
        @click="emit('drop')"
      />
      <Button type="button" :label="t('cancel')" text @click="emit('cancel')" />
    </div>
  </form>
</template>

<style scoped>
.other > p {
  flex: 1 1 16rem;
}
</style>
