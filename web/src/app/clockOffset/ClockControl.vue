<script setup lang="ts">
import { computed } from 'vue'
import type { ClockMove } from '@contract/clockOffset'
import { useSession } from '../../people/account/session'
import { useNow } from '../../platform/time/now'
import { shortMoment } from '../../platform/time/times'
import { useAttempt } from '../../platform/parts/attempt'
import { t } from './messages'

/** Moves time forward, where it can be moved: so one can watch a week of releases go by. */
defineProps<{ zone: string }>()
const sessions = useSession()
const now = useNow()
const { problem, busy, attempt } = useAttempt('')
const hourMs = 3600_000
const isAhead = computed(() => (sessions.session?.demo?.clockOffsetMs ?? 0) > 60_000)

const ways: readonly { name: string; move: ClockMove }[] = [
  { name: t('hourLater'), move: { to: 'later', byMs: hourMs } },
  { name: t('dayLater'), move: { to: 'later', byMs: 24 * hourMs } },
  { name: t('toNextRelease'), move: { to: 'next release' } },
]

const go = (move: ClockMove): Promise<boolean> => attempt(() => sessions.moveClock(move))
</script>

<template>
  <div class="clock small spaced gap-1 px-4 py-2 border-t border-edge" role="group" :aria-label="t('clockOfTheDemo')">
    <p>
      <span class="field-name">{{ isAhead ? t('demoTime') : t('moveDemoTime') }}</span>{{ ' '
      }}<span v-if="isAhead" class="figures" role="status">{{ shortMoment(now, zone) }}</span>
    </p>
    <p class="flex flex-wrap gap-x-3 gap-y-1">
      <button
        v-for="{ name, move } in ways"
        :key="name"
        type="button"
        class="small-button"
        :disabled="busy"
        @click="go(move)"
      >
        {{ name }}
      </button>
    </p>
    <p v-if="problem" role="alert">{{ problem.detail }}</p>
  </div>
</template>
