<script setup lang="ts">
import { computed } from 'vue'
import type { Directory, Listing } from '@contract/directories'
import type { Show } from '@contract/shows'
import { shortMoment } from '../../platform/time/times'
import { locale } from '../../platform/messages'
import { FormattedMessage, t } from './messages'

/** How a show stands in a directory, what it has of it, and when the rest is to be expected. */
const props = defineProps<{ directory: Directory; listing: Listing; show: Show }>()
const [least, most] = props.directory.everyHours
const often =
  least === most ? (least === 1 ? t('everyHour') : t('everyHours', { least })) : t('everyFewHours', { least, most })
const list = new Intl.ListFormat(locale)
const lacks = computed(() =>
  list.format(props.listing.lacks.map(({ number, title }) => (number === null ? `“${title}”` : String(number)))),
)
const at = (moment: string): string => shortMoment(moment, props.show.zone)
</script>

<template>
  <div class="state spaced gap-1">
    <p v-if="listing.state === 'reading'" class="wrap-anywhere" role="status">
      <strong>{{ t('submitted') }}</strong> {{ t('readingFeed') }}
    </p>
    <p v-else-if="listing.state === 'to confirm'" class="wrap-anywhere" role="status">
      <strong>{{ t('confirmOwner') }}</strong> {{ t('codeSentTo', { address: listing.sentTo ?? t('ownersEmail') }) }}
    </p>
    <template v-else-if="listing.state === 'in review'">
      <p class="wrap-anywhere" role="status">
        <FormattedMessage of="inReviewSince" :values="{ moment: at(listing.since) }" />{{ ' ' }}
        <template v-if="listing.isClosed">{{ t('nobodyReviewsToday') }}</template>
      </p>
      <p v-if="directory.reviewDays" class="quiet wrap-anywhere">
        {{ t('reviewTakes', { least: directory.reviewDays[0], most: directory.reviewDays[1] }) }}
      </p>
    </template>
    <p v-else-if="listing.state === 'refused'" class="wrap-anywhere text-signal" role="status">
      <strong>{{ t('refused') }}</strong> {{ listing.why ?? t('noReasonGiven') }}
    </p>
    <template v-else>
      <p class="wrap-anywhere" role="status">
        <FormattedMessage of="listedSince" :values="{ moment: at(listing.since) }" />{{ ' ' }}
        <a v-if="listing.listingAddress" :href="listing.listingAddress" target="_blank">{{ t('viewTheListing') }}</a>
      </p>
      <p v-if="listing.lacks.length === 0" class="wrap-anywhere">{{ t('hasAll', { count: listing.has }) }}</p>
      <p v-else class="wrap-anywhere">
        {{ t('hasMost', { count: listing.has, lacking: lacks }) }}
        <template v-if="listing.nextFetchAt">{{ t('expectAfter', { moment: at(listing.nextFetchAt) }) }}</template>
      </p>
      <p class="quiet small wrap-anywhere">
        {{ listing.fetchedAt ? t('checksLastOn', { often, moment: at(listing.fetchedAt) }) : t('checks', { often }) }}
      </p>
    </template>
    <p v-if="listing.problem" class="quiet small wrap-anywhere">
      {{ t('seenBefore', { problem: listing.problem }) }}
    </p>
    <p v-if="listing.state === 'listed' && listing.why" class="small wrap-anywhere text-signal">{{ listing.why }}</p>
  </div>
</template>
