<script setup lang="ts">
import type { PublicEpisode } from './facts'
import { fileName, paragraphs } from './words'
import { useMessages } from './useMessages'

defineProps<{
  said: PublicEpisode['said']
  files: PublicEpisode['transcriptFiles']
  /** Null where nothing can be heard. */
  soundAddress: string | null
}>()
/** Shorter ones need not be opened. */
const mostOpen = 12
const messages = useMessages()
const { t } = messages
</script>

<template>
  <section aria-labelledby="transcript">
    <details class="transcript" :open="said.length <= mostOpen">
      <summary>
        <h2 id="transcript" class="section">{{ t('transcript') }}</h2>
      </summary>
      <p v-if="files.length" class="small quiet files">
        <template v-for="(file, index) in files" :key="file.address"
          ><template v-if="index">, </template
          ><a :href="file.address">{{ fileName(file, files, messages) }}</a></template
        >
      </p>
      <div class="said" data-said data-follows role="region" aria-labelledby="transcript" tabindex="0">
        <p v-for="(paragraph, index) in paragraphs(said)" :key="index">
          <b v-if="paragraph.speaker">{{ paragraph.speaker }}</b><template v-for="(cue, at) in paragraph.cues" :key="at"
            ><a v-if="cue.fromMs !== null && soundAddress" :href="`${soundAddress}#t=${cue.fromMs / 1000}`" data-at>{{
              cue.text
            }}</a
            ><template v-else>{{ cue.text }}</template
            >{{ ' ' }}</template
          >
        </p>
      </div>
    </details>
  </section>
</template>
