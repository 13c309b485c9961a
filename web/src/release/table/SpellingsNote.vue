<script setup lang="ts">
import { computed } from 'vue'
import type { Person } from '@core/episode/fields'
import type { BulkEdit } from '@core/episode/bulkEdit'
import { namesOfOne } from '@core/people/same'
import { spellingsOf, type UsedTag } from '@core/tags/spellings'
import { locale } from '../../platform/messages'
import { t } from './messages'

/** One tag in several spellings, one person in several: each can be written in one way all over the show. */
const props = defineProps<{ tags: readonly UsedTag[]; people: readonly Person[] }>()
const emit = defineEmits<{ look: [change: BulkEdit] }>()

const both = new Intl.ListFormat(locale)
const offers = computed(() => [
  ...spellingsOf(props.tags).map(group => ({
    says: t('areOneTag', { tags: both.format(group.map(({ tag, count }) => `“${tag}” (${count})`)) }),
    ways: group.map(({ tag }) => ({
      name: tag,
      change: {
        kind: 'merge tags',
        tags: group.map(each => each.tag).filter(each => each !== tag),
        into: tag,
      } as const,
    })),
  })),
  ...namesOfOne(props.people).map(group => ({
    says: t('mayBeOnePerson', { names: both.format(group.map(({ name }) => `“${name}”`)) }),
    ways: group.map(person => ({
      name: person.name,
      change: { kind: 'merge people', people: group.filter(each => each !== person), into: person } as const,
    })),
  })),
])
</script>

<template>
  <ul v-if="offers.length" class="small unlisted spaced gap-1" :aria-label="t('writtenInSeveralWays')">
    <li v-for="{ says, ways } in offers.slice(0, 3)" :key="says">
      {{ says }} {{ t('writeEverywhere') }}
      <template v-for="(way, at) in ways" :key="way.name"
        >{{ at ? t('orBetween') : ''
        }}<button type="button" class="small-button" @click="emit('look', way.change)">
          {{ way.name }}
        </button></template
      >
    </li>
    <li v-if="offers.length > 3" class="quiet">{{ t('moreLikeThese', { count: offers.length - 3 }) }}</li>
  </ul>
</template>
