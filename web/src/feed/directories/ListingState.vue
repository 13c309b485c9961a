<script setup lang="ts">
import { computed } from 'vue'
import type { Directory, Listing } from '@contract/directories'
import type { Show } from '@contract/shows'
import { shortMoment } from '../../platform/time/times'

/** How a show stands in a directory, what it has of it, and when the rest is to be expected. */
const props = defineProps<{ directory: Directory; listing: Listing; show: Show }>()
const [least, most] = props.directory.everyHours
const often = least === most ? (least === 1 ? 'every hour' : `every ${least} hours`) : `every ${least} to ${most} hours`
const list = new Intl.ListFormat('en-GB')
const lacks = computed(() =>
  list.format(props.listing.lacks.map(({ number, title }) => (number === null ? `“${title}”` : String(number)))),
)
const at = (moment: string): string => shortMoment(moment, props.show.zone)
</script>

<template>
  <div class="state spaced gap-1">
    <p v-if="listing.state === 'reading'" class="wrap-anywhere" role="status">
      <strong>Submitted.</strong> It is reading the feed. This takes a moment.
    </p>
    <p v-else-if="listing.state === 'to confirm'" class="wrap-anywhere" role="status">
      <strong>Confirm that it is yours.</strong> A code was sent to {{ listing.sentTo ?? 'the owner’s email' }}.
    </p>
    <template v-else-if="listing.state === 'in review'">
      <p class="wrap-anywhere" role="status">
        <strong>In review</strong> since {{ at(listing.since) }}.
        <template v-if="listing.isClosed">Nobody reviews today. The review continues on the next working day.</template>
      </p>
      <p v-if="directory.reviewDays" class="quiet wrap-anywhere">
        People look at it within {{ directory.reviewDays[0] }} to {{ directory.reviewDays[1] }} working days. There is
        nothing to do until then, and submitting it again won’t speed it up.
      </p>
    </template>
    <p v-else-if="listing.state === 'refused'" class="wrap-anywhere text-signal" role="status">
      <strong>Refused:</strong> {{ listing.why ?? 'no reason was given.' }}
    </p>
    <template v-else>
      <p class="wrap-anywhere" role="status">
        <strong>Listed</strong> since {{ at(listing.since) }}.
        <a v-if="listing.listingAddress" :href="listing.listingAddress" target="_blank">View the listing</a>
      </p>
      <p v-if="listing.lacks.length === 0" class="wrap-anywhere">It has all {{ listing.has }} episodes.</p>
      <p v-else class="wrap-anywhere">
        It has {{ listing.has }} {{ listing.has === 1 ? 'episode' : 'episodes' }}, and not yet {{ lacks }}.
        <template v-if="listing.nextFetchAt">Expect it after {{ at(listing.nextFetchAt) }}.</template>
      </p>
      <p class="quiet small wrap-anywhere">
        It checks {{ often }}<template v-if="listing.fetchedAt">; last on {{ at(listing.fetchedAt) }}</template
        >. New episodes go there by themselves.
      </p>
    </template>
    <p v-if="listing.problem" class="quiet small wrap-anywhere">
      {{ listing.problem }} What you see here is from before that.
    </p>
    <p v-if="listing.state === 'listed' && listing.why" class="small wrap-anywhere text-signal">{{ listing.why }}</p>
  </div>
</template>
