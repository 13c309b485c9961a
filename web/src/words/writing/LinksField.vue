<script setup lang="ts">
import { X } from '@lucide/vue'
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { computed, ref } from 'vue'
import { type Link } from '@core/episode/fields'
import { readLinks } from '@core/notes/links'
import IconButton from '../../platform/parts/IconButton.vue'
import { t } from './messages'

/** Links that lie ready for the notes: the show's usual ones and this episode's. */
const links = defineModel<Link[]>({ required: true })
const props = defineProps<{ usual: readonly Link[]; label?: string; fault?: string }>()
const emit = defineEmits<{ insert: [link: Link] }>()
const pasted = ref('')
const read = computed(() => readLinks(pasted.value))
const own = computed(() => new Set(links.value.map(({ address }) => address)))

function take(): void {
  links.value = [...links.value, ...read.value.links.filter(({ address }) => !own.value.has(address))]
  pasted.value = read.value.unread.join('\n')
}
</script>

<template>
  <div class="field">
    <span id="links-name" class="field-name">{{ label ?? t('savedLinks') }}</span>
    <ul
      v-if="links.length || usual.length"
      class="links small unlisted flex flex-wrap gap-x-4 gap-y-1"
      aria-labelledby="links-name"
    >
      <li v-for="link in links" class="flex gap-1 items-baseline" :key="link.address">
        <button type="button" class="small-button" :title="link.address" @click="emit('insert', link)">
          {{ link.words || link.address }}
        </button>
        <IconButton
          :name="t('removeNamed', { name: link.words || link.address })"
          :icon="X"
          @click="links = links.filter(each => each !== link)"
        />
      </li>
      <li
        v-for="link in usual.filter(({ address }) => !own.has(address))"
        class="flex gap-1 items-baseline"
        :key="`usual ${link.address}`"
      >
        <button type="button" class="small-button" :title="link.address" @click="emit('insert', link)">
          {{ link.words || link.address }}
        </button>
        <span class="quiet">{{ t('usual') }}</span>
      </li>
    </ul>
    <form class="new flex gap-2 items-start" @submit.prevent="take">
      <Textarea
        v-model="pasted"
        rows="1"
        auto-resize
        :aria-label="t('newLinks')"
        :placeholder="t('linksPlaceholder')"
      />
      <Button type="submit" :label="t('add')" size="small" outlined :disabled="read.links.length === 0" />
    </form>
    <span v-if="read.unread.length && pasted.includes('\n')" class="fault" role="alert">{{
      t('noAddressIn', { line: read.unread[0]!.slice(0, 60) })
    }}</span>
    <span v-else-if="props.fault" class="fault" role="alert">{{ props.fault }}</span>
    <span v-else class="hint">{{ t('linksHint') }}</span>
  </div>
</template>

<style scoped>
.new :first-child {
  flex: 1;
  min-width: 0;
}
</style>
