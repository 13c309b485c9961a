<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import ConfirmDialog from 'primevue/confirmdialog'
import { useConfirm } from 'primevue/useconfirm'
import { computed, onMounted } from 'vue'
import { mailChoices, type MailKind, mailKinds } from '@core/release/notices'
import CopyField from '../../platform/parts/CopyField.vue'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useShows } from '../../show/shows/shows'
import { shortMoment } from '../../platform/time/times'
import { useSession } from '../../people/account/session'
import { useYou } from './you'
import { FormattedMessage, t } from './messages'

/** What the person who is signed in is written of, and the address for their own calendar. */
const props = defineProps<{ show: string }>()
const you = useYou()
const sessions = useSession()
const shows = useShows()
const confirm = useConfirm()
const zone = computed(() => shows.bySlug(props.show)!.zone)
onMounted(you.load)

const states = { waiting: t('mailWaits'), sent: t('mailSent'), 'given up': t('mailNotSent') } as const

function askBefore(what: 'renew' | 'drop'): void {
  confirm.require({
    header: what === 'renew' ? t('renewCalendarQuestion') : t('deleteCalendarQuestion'),
    message: t('calendarsWillStop'),
    acceptLabel: what === 'renew' ? t('createAnother') : t('delete'),
    rejectLabel: t('cancel'),
    rejectProps: { text: true },
    accept: () => void (what === 'renew' ? you.renewAddress() : you.dropAddress()),
  })
}
</script>

<template>
  <PageLayout
    :heading="t('mailAndCalendar')"
    width="narrow"
    :waits-for="!you.mail && !you.problem && t('yourSettings')"
  >
    <ProblemNote v-if="you.problem" :problem="you.problem" />
    <section v-if="you.mail" class="stacked wrap-anywhere gap-3" aria-labelledby="mail-name">
      <h2 id="mail-name">{{ t('mailTo', { address: you.mail.to }) }}</h2>
      <p v-if="!you.mail.isSent" class="note">
        {{ t('noMailServer') }}
      </p>
      <ul class="choices grid gap-2 m-0 p-0 list-none">
        <li v-for="kind in mailKinds" :key="kind">
          <Checkbox
            binary
            :input-id="`mail-${kind}`"
            :model-value="!you.mail.unwanted.includes(kind)"
            :disabled="you.busy"
            @update:model-value="isWanted => you.choose(kind as MailKind, isWanted as boolean)"
          /><label :for="`mail-${kind}`">{{ mailChoices[kind] }}</label>
        </li>
      </ul>
      <template v-if="you.mail.last.length">
        <h3>{{ t('recentEmails') }}</h3>
        <ul class="last small grid gap-2 m-0 p-0 list-none">
          <li v-for="{ id, subject, state, problem, at } in you.mail.last" :key="id">
            <span class="figures quiet">{{ shortMoment(at, zone) }}</span>
            <span>{{ subject }}</span>
            <span :class="{ failed: state === 'given up' }"
              >{{ states[state] }}{{ problem && state !== 'sent' ? `: ${problem}` : '' }}</span
            >
          </li>
        </ul>
      </template>
      <p v-if="sessions.session?.demo?.outboxAddress" class="small">
        <FormattedMessage of="outboxShows"
          ><template #link="{ words }"
            ><a :href="sessions.session.demo.outboxAddress" target="_blank">{{ words }}</a></template
          ></FormattedMessage
        >
      </p>
    </section>

    <section v-if="you.mail" class="stacked wrap-anywhere gap-3" aria-labelledby="calendar-name">
      <h2 id="calendar-name">{{ t('yourOwnCalendar') }}</h2>
      <template v-if="you.calendarAddress">
        <CopyField :label="t('addressToSubscribeTo')" :text="you.calendarAddress" />
        <p class="small quiet">
          {{ t('calendarAddressHint') }}
        </p>
        <p class="actions flex gap-2">
          <Button
            :label="t('createAnotherAddress')"
            size="small"
            outlined
            :disabled="you.busy"
            @click="askBefore('renew')"
          />
          <Button :label="t('delete')" size="small" text :disabled="you.busy" @click="askBefore('drop')" />
        </p>
      </template>
      <template v-else>
        <p class="small">{{ t('noCalendarAddressHint') }}</p>
        <p><Button :label="t('createACalendarAddress')" outlined :loading="you.busy" @click="you.renewAddress" /></p>
      </template>
    </section>
    <ConfirmDialog :style="{ width: 'min(27rem, 92vw)' }" />
  </PageLayout>
</template>

<style scoped>
.choices li {
  display: flex;
  gap: var(--space-2);
  align-items: center;
  min-height: max(28px, var(--target));
}
.last li {
  display: grid;
  grid-template-columns: 9rem minmax(0, 1fr) minmax(8rem, auto);
  gap: var(--space-3);
}
.failed {
  font-weight: 600;
}
@media (max-width: 620px) {
  .last li {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
}
</style>
