<script setup lang="ts">
import { X } from '@lucide/vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref } from 'vue'
import { newMark, type ShowNumbers } from '@contract/numbers'
import type { Show } from '@contract/shows'
import { may } from '@core/access/roles'
import { useSave } from '../../platform/parts/attempt'
import DayPicker from '../../platform/parts/DayPicker.vue'
import FoldPanel from '../../platform/parts/FoldPanel.vue'
import FormField from '../../platform/parts/FormField.vue'
import IconButton from '../../platform/parts/IconButton.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { currentMoment } from '../../platform/time/now'
import { shortDay } from '../../platform/time/times'
import { t } from './messages'
import { useNumbers } from './numbers'

/** What happened on a day, such as a mention in a paper; it stands in every curve. */
const props = defineProps<{ show: Show; marks: ShowNumbers['marks'] }>()
const store = useNumbers()
const form = ref<HTMLElement>()
const { problem, busy, fault, save } = useSave(form)
/** Today as the days of figures are, in UTC: after midnight in the window's zone theirs may not have begun. */
const [year, month, date] = currentMoment().toISOString().slice(0, 10).split('-').map(Number)
const day = ref<Date | null>(new Date(year!, month! - 1, date))
const words = ref('')

const isoDay = (at: Date | null): string =>
  at ? `${at.getFullYear()}-${String(at.getMonth() + 1).padStart(2, '0')}-${String(at.getDate()).padStart(2, '0')}` : ''

async function add(): Promise<void> {
  const mark = { day: isoDay(day.value), words: words.value }
  const isSaved = await save(newMark, mark, () => store.addMark(props.show.id, mark))
  if (isSaved) words.value = ''
}
</script>

<template>
  <FoldPanel>
    <template #line>{{ t('marksOnDays', { count: marks.length }) }}</template>
    <div class="spaced gap-3">
      <ul v-if="marks.length > 0" class="unlisted">
        <li v-for="mark in marks" :key="mark.id" class="flowing">
          <span class="figures">{{ shortDay(mark.day, 'utc') }}</span> {{ mark.words }}
          <IconButton
            v-if="may(show.role, 'write')"
            :name="t('removeMark', { words: mark.words })"
            :icon="X"
            @click="store.removeMark(mark.id)"
          />
        </li>
      </ul>
      <form v-if="may(show.role, 'write')" ref="form" class="actions" novalidate @submit.prevent="add">
        <FormField v-slot="{ id }" :label="t('day')" :fault="fault('day')">
          <DayPicker v-model="day" :input-id="id" />
        </FormField>
        <FormField v-slot="{ id }" :label="t('whatHappened')" :fault="fault('words')">
          <InputText :id="id" v-model="words" maxlength="80" :invalid="fault('words') !== undefined" />
        </FormField>
        <Button type="submit" :label="t('add')" :loading="busy" size="small" />
      </form>
      <ProblemNote v-if="problem" :problem="problem" />
    </div>
  </FoldPanel>
</template>
