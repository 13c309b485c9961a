<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import Select from 'primevue/select'
import { computed, onScopeDispose, ref, useId, watch } from 'vue'
import { level } from '@core/audio/decibels'
import { clock } from '@core/words/amounts'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useAttempt } from '../../platform/parts/attempt'
import { useSound } from '../sound/sound'
import { type Sending, useUploads } from '../uploads/uploads'
import LevelMeter from './LevelMeter.vue'
import { type MicrophoneTrouble, useRecorder } from './recorder'
import { lengthMs, type Take } from './takes'
import { t } from './messages'

/** Records with a microphone, take after take; what is used becomes a piece of what the episode is put together of. */
const props = defineProps<{ episodeId: string; pieces: readonly { id: string; name: string }[] }>()
const emit = defineEmits<{ close: [] }>()
const uploads = useUploads()
const sounds = useSound()
const recorder = useRecorder(props.episodeId)
const { state, trouble, takes, elapsedMs, clippedAtMs, count, countsIn, isMonitored } = recorder
const { problem, busy, attempt } = useAttempt(t('recordingUnchanged'))
const isPossible = Boolean(navigator.mediaDevices?.getUserMedia)
const counting = useId()
const hearing = useId()

const troubles: Readonly<Record<MicrophoneTrouble, string>> = {
  denied: t('denied'),
  none: t('noMicrophone'),
  busy: t('microphoneBusy'),
  gone: t('microphoneGone'),
}
const devices = computed(() =>
  recorder.devices.value.map(({ deviceId, label }, n) => ({
    deviceId,
    label: label || t('microphoneNumber', { number: n + 1 }),
  })),
)
const places = computed(() => [
  ...props.pieces.map(({ name }, position) => ({ position, name: t('beforePiece', { name }) })),
  { position: props.pieces.length, name: t('toTheEnd') },
])
const chosen = ref<number | null>(null)
const position = computed({
  get: () => Math.min(chosen.value ?? props.pieces.length, props.pieces.length),
  set: at => (chosen.value = at),
})

const peakOf = ({ peak }: Take): string => (level(peak) ?? -99).toFixed(1).replace('-', '−')
/** Their numbers are those of the order in which they were recorded. */
const numberOf = (take: Take): number => takes.value.length - takes.value.indexOf(take)

const heardId = ref<string | null>(null)
const sound = new Audio()
let address = ''
sound.addEventListener('ended', () => silence())
function silence(): void {
  sound.pause()
  URL.revokeObjectURL(address)
  heardId.value = null
}
async function listen(take: Take): Promise<void> {
  const isHeard = heardId.value === take.id
  silence()
  if (isHeard) return
  address = URL.createObjectURL(await recorder.fileFor(take, ''))
  sound.src = address
  heardId.value = take.id
  await sound.play()
}
onScopeDispose(silence)

function nameOf({ begunAt }: Take): string {
  const at = new Date(begunAt)
  const two = (number: number): string => String(number).padStart(2, '0')
  return t('recordingName', {
    day: `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`,
    time: `${two(at.getHours())}-${two(at.getMinutes())}-${two(at.getSeconds())}`,
  })
}
async function use(take: Take): Promise<void> {
  silence()
  const file = await recorder.fileFor(take, nameOf(take))
  const part = { role: 'piece', position: position.value } as const
  await recorder.markUsed(take, await uploads.beginPart(props.episodeId, file, part))
}
const stateOf = ({ uploadId = '' }: Take): Sending['state'] | undefined => uploads.sendings[uploadId]?.state
const isUnderWay = (take: Take): boolean => !['refused', undefined].includes(stateOf(take))
/** Whether all of a take is with the server: by the upload of this window, or by what an earlier one sent. */
const isSent = (take: Take): boolean =>
  stateOf(take) === 'sent' ||
  (take.uploadId !== undefined &&
    stateOf(take) === undefined &&
    sounds.sound!.parts.some(({ name }) => name === nameOf(take)))
watch(
  () => takes.value.filter(isSent),
  async sent => {
    for (const take of sent) await recorder.discard(take)
  },
)
const sure = ref<string | null>(null)
async function discard(take: Take): Promise<void> {
  silence()
  sure.value = null
  await recorder.discard(take)
}

async function close(): Promise<void> {
  await recorder.close()
  emit('close')
}
void recorder.load()
if (isPossible) void recorder.open()
</script>

<template>
  <section class="boxed stacked px-4 py-3" :aria-label="t('recording')">
    <p v-if="!isPossible" role="alert">{{ t('needsHttpsToRecord') }}</p>
    <template v-else>
      <p v-if="state === 'opening'" role="status">{{ t('openingMicrophone') }}</p>
      <div v-if="trouble" class="flowing">
        <p class="fault" role="alert">{{ troubles[trouble] }}</p>
        <Button type="button" size="small" outlined :label="t('tryAgain')" @click="recorder.open()" />
      </div>
      <div v-if="recorder.microphone.value" class="flowing">
        <Button v-if="state === 'ready'" type="button" class="record" :label="t('record')" @click="recorder.start()" />
        <Button v-else type="button" class="record" :label="t('stop')" @click="recorder.stop()" />
        <span v-if="state === 'counting'" class="figures elapsed" role="status">{{ t('countdown', { count }) }}</span>
        <span v-else class="figures elapsed">{{ clock(elapsedMs) }}</span>
        <LevelMeter :level-db="recorder.levelDb.value" :held-db="recorder.heldDb.value" />
      </div>
      <div v-if="clippedAtMs !== null" class="flowing">
        <p class="fault" role="alert">{{ t('clippedAt', { time: clock(clippedAtMs) }) }}</p>
        <Button type="button" size="small" :label="t('recordAgain')" @click="recorder.again()" />
      </div>
      <p v-if="recorder.hasUnkept.value" class="fault" role="alert">{{ t('noRoom') }}</p>
      <div v-if="recorder.microphone.value" class="flowing settings">
        <label class="grid"
          ><span class="small quiet" aria-hidden="true">{{ t('microphone') }}</span
          ><Select
            :model-value="recorder.microphone.value.deviceId"
            :options="devices"
            option-label="label"
            option-value="deviceId"
            size="small"
            class="device"
            :disabled="state !== 'ready'"
            :aria-label="t('microphone')"
            @update:model-value="id => recorder.open(id)"
        /></label>
        <label class="flex gap-2 items-center" :for="counting"
          ><Checkbox v-model="countsIn" :input-id="counting" binary />{{ t('countIn') }}</label
        >
        <label class="flex gap-2 items-center" :for="hearing"
          ><Checkbox
            :model-value="isMonitored"
            :input-id="hearing"
            binary
            @update:model-value="recorder.setMonitored"
          />{{ t('hearYourself') }}</label
        >
      </div>
    </template>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="takes.length > 0">
      <div class="apart flex-wrap">
        <h3 class="field-name">{{ t('takes') }}</h3>
        <label class="flex gap-2 items-center small"
          ><span aria-hidden="true">{{ t('goesTo') }}</span
          ><Select
            v-model="position"
            :options="places"
            option-label="name"
            option-value="position"
            size="small"
            class="device"
            :aria-label="t('goesTo')"
        /></label>
      </div>
      <ol class="unlisted" :aria-label="t('takes')">
        <li v-for="each in takes" :key="each.id" class="take apart">
          <span class="grid min-w-0">
            <strong>{{ t('takeNumber', { number: numberOf(each) }) }}</strong>
            <span class="small figures" :class="each.clips.length > 0 ? 'fault' : 'quiet'"
              >{{ clock(lengthMs(each)) }} · {{ t('peakOf', { level: peakOf(each) })
              }}<template v-if="each.clips[0]">
                · {{ t('clippedTimes', { count: each.clips.length, time: clock(each.clips[0].fromMs) }) }}</template
              ></span
            >
          </span>
          <span v-if="recorder.elsewhere.value.has(each.id)" class="small quiet">{{ t('recordedElsewhere') }}</span>
          <span v-else-if="isUnderWay(each)" class="small quiet">{{ t('takeUploading') }}</span>
          <span v-else-if="sure === each.id" class="actions" role="alert">
            <span class="small">{{ t('discardSure', { number: numberOf(each) }) }}</span>
            <Button type="button" size="small" :label="t('discard')" @click="attempt(() => discard(each))" />
            <Button type="button" size="small" text :label="t('cancel')" @click="sure = null" />
          </span>
          <span v-else class="actions">
            <Button
              type="button"
              size="small"
              text
              :label="heardId === each.id ? t('stop') : t('listen')"
              :aria-label="t(heardId === each.id ? 'stopTake' : 'listenTo', { number: numberOf(each) })"
              @click="attempt(() => listen(each))"
            />
            <Button
              type="button"
              size="small"
              text
              :label="t('discard')"
              :aria-label="t('discardNamed', { number: numberOf(each) })"
              @click="sure = each.id"
            />
            <Button
              type="button"
              size="small"
              outlined
              :label="t('useTake')"
              :aria-label="t('useTakeNamed', { number: numberOf(each) })"
              :disabled="busy"
              @click="attempt(() => use(each))"
            />
          </span>
        </li>
      </ol>
    </template>
    <p class="apart small quiet">
      <span>{{ t('takesKept') }}</span>
      <button type="button" class="small-button" @click="close">{{ t('close') }}</button>
    </p>
  </section>
</template>

<style scoped>
.record {
  min-width: 6rem;
}
.elapsed {
  min-width: 4rem;
}
.settings {
  align-items: end;
}
.settings > .flex {
  min-height: 2.2rem;
}
.device {
  max-width: 18rem;
}
.take {
  padding-block: var(--space-2);
  border-bottom: 1px solid var(--edge);
}
</style>
