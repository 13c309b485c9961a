<script setup lang="ts">
import { mostSearchLetters } from '@core/search/query'
import { clock } from '@core/words/amounts'
import EpisodeHead from './EpisodeHead.vue'
import PageFrame from './PageFrame.vue'
import SearchForm from './SearchForm.vue'
import SoundPlayer from './SoundPlayer.vue'
import type { SearchPage } from './facts'
import { placeNames, playerOf, playing } from './words'

const props = defineProps<SearchPage>()
const [first] = props.found
const soundAt = (address: string, fromMs: number): string => `${address}#t=${fromMs / 1000}`
</script>

<template>
  <PageFrame :show="show" here="search">
    <h1>Search</h1>
    <SearchForm :show="show" :words="words" />
    <p v-if="isTooLong" class="quiet">Only the first {{ mostSearchLetters }} letters were looked for.</p>
    <p v-if="words === ''" class="quiet">
      Look for a word, a name, or a sentence that was said. What stands between “quotation marks” is found as it stands.
    </p>
    <p v-else-if="!found.length">
      Nothing in {{ show.name }} has “{{ words }}”. Try a shorter word, or look through
      <a :href="`${show.pageAddress}/episodes`">all episodes</a>.
    </p>
    <template v-else>
      <p class="quiet" role="status">
        <template v-if="!hasAllWords">Nothing has all these words together. With some of them: </template
        ><template v-if="found.length === 1">{{ hasAllWords ? 'One' : 'one' }} episode</template
        ><template v-else>{{ found.length }} episodes</template>{{ isCut ? ', the best of more' : '' }}.
      </p>
      <ol class="found">
        <li v-for="{ episode, places } in found" :key="episode.pageAddress" v-bind="playing(show, episode)">
          <EpisodeHead :show="show" :episode="episode" />
          <ul>
            <li v-for="(place, at) in places" :key="at">
              <a
                v-if="place.fromMs !== null"
                class="from figures"
                :href="soundAt(episode.sound.address, place.fromMs)"
                data-plays
                ><span class="out-of-sight">Play from </span>{{ clock(place.fromMs) }}</a
              >
              <span v-else class="from quiet">{{ placeNames[place.kind] }}</span>
              <p>
                <b v-if="place.speaker">{{ place.speaker }}: </b
                ><template v-for="(part, index) in place.parts" :key="index"
                  ><mark v-if="part.isHit">{{ part.text }}</mark
                  ><template v-else>{{ part.text }}</template></template
                >
              </p>
            </li>
          </ul>
        </li>
      </ol>
      <div v-if="first" class="hearing" data-hearing hidden>
        <p>
          <a class="episode-title" data-heard :href="first.episode.pageAddress">{{ first.episode.title }}</a>
        </p>
        <SoundPlayer v-bind="playerOf(show, first.episode, first.episode.sound)" />
      </div>
    </template>
  </PageFrame>
</template>
