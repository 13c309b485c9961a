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

/** What the person who is signed in is written of, and the address for their own calendar. */
const props = defineProps<{ show: string }>()
const you = useYou()
const sessions = useSession()
const shows = useShows()
const confirm = useConfirm()
const zone = computed(() => shows.bySlug(props.show)!.zone)
onMounted(you.load)

const states = { waiting: 'waits for the mail server', sent: 'sent', 'given up': 'could not be sent' } as const

function askBefore(what: 'renew' | 'drop'): void {
  confirm.require({
    header: what === 'renew' ? 'Create a new calendar address?' : 'Remove the calendar address?',
    message: 'Calendars subscribed to the current address will stop updating.',
    acceptLabel: what === 'renew' ? 'Create another' : 'Delete',
    rejectLabel: 'Cancel',
    rejectProps: { text: true },
    accept: () => void (what === 'renew' ? you.renewAddress() : you.dropAddress()),
  })
}
</script>

<template>
  <PageLayout heading="Mail and calendar" width="narrow" :waits-for="!you.mail && !you.problem && 'your settings'">
    <ProblemNote v-if="you.problem" :problem="you.problem" />
    <section v-if="you.mail" class="stacked wrap-anywhere gap-3" aria-labelledby="mail-name">
      <h2 id="mail-name">Mail to {{ you.mail.to }}</h2>
      <p v-if="!you.mail.isSent" class="note">
        No mail server is set, so no mail is sent. The administrator sets one with SMTP_URL.
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
        <h3>Recent emails</h3>
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
        <a :href="sessions.session.demo.outboxAddress" target="_blank">The stand-in outbox</a> shows what arrived.
      </p>
    </section>

    <section v-if="you.mail" class="stacked wrap-anywhere gap-3" aria-labelledby="calendar-name">
      <h2 id="calendar-name">Your own calendar</h2>
      <template v-if="you.calendarAddress">
        <CopyField label="Address to subscribe to" :text="you.calendarAddress" />
        <p class="small quiet">
          Subscribe to it in your calendar; it lists every planned release and follows changes to them. Anyone with the
          address can read it.
        </p>
        <p class="actions flex gap-2">
          <Button
            label="Create another address"
            size="small"
            outlined
            :disabled="you.busy"
            @click="askBefore('renew')"
          />
          <Button label="Delete" size="small" text :disabled="you.busy" @click="askBefore('drop')" />
        </p>
      </template>
      <template v-else>
        <p class="small">See the release dates of all your shows in your own calendar.</p>
        <p><Button label="Create a calendar address" outlined :loading="you.busy" @click="you.renewAddress" /></p>
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
