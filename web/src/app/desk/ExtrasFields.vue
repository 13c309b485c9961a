<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { computed } from 'vue'
import type { Fault } from '@contract/problem'
import type { Show } from '@contract/shows'
import { discussionProtocols, type EpisodeText } from '@core/episode/fields'
import { filmAddress } from '@core/film/address'
import FormField from '../../platform/parts/FormField.vue'
import FoldPanel from '../../platform/parts/FoldPanel.vue'
import ArtworkField from '../../show/shows/ArtworkField.vue'

/** What is usually as the show has it: told in one line, and written where it differs. */
const extras = defineModel<EpisodeText['extras']>('extras', { required: true })
const artworkId = defineModel<string | null>('artworkId', { required: true })
const props = defineProps<{ show: Show; artworkAddress: string | null; faults: readonly Fault[] }>()
const emit = defineEmits<{ artwork: [address: string] }>()

const set = (part: Partial<EpisodeText['extras']>): void => {
  extras.value = { ...extras.value, ...part }
}
const text = (name: 'author' | 'page' | 'discussion' | 'numberShown' | 'licence' | 'place') => ({
  modelValue: extras.value[name] ?? '',
  'onUpdate:modelValue': (words: string | undefined) => set({ [name]: words?.trim() ? words : null }),
})
const fault = (name: string): string | undefined => props.faults.find(({ field }) => field === `extras.${name}`)?.rule

const discussionHint = computed(() =>
  extras.value.discussionProtocol ? 'comments, and podcast:socialInteract: apps take part' : 'The item’s comments',
)
const inherited = computed(() => {
  const { explicit, author, page } = extras.value
  const names = [
    ...(artworkId.value ? [] : ['artwork']),
    ...(author === null ? [`author (${props.show.author})`] : []),
    ...(explicit === null ? [props.show.explicit ? 'explicit' : 'not explicit'] : []),
    ...(page === null ? ['web page'] : []),
  ]
  const empty = [
    ...(extras.value.discussion === null ? ['discussion'] : []),
    ...(extras.value.place === null ? ['place'] : []),
    ...(extras.value.licence === null ? ['licence'] : []),
  ]
  return [
    names.length > 0 ? `As the show has them: ${names.join(', ')}.` : '',
    empty.length > 0 ? `Empty, and may stay so: ${empty.join(', ')}.` : '',
  ]
    .filter(Boolean)
    .join(' ')
})
const protocolNames: Readonly<Record<(typeof discussionProtocols)[number], string>> = {
  activitypub: 'a post by ActivityPub',
  atproto: 'a post by the AT Protocol',
}
const discussionChoices = [
  { name: 'a page', value: 'page' },
  ...discussionProtocols.map(value => ({ name: protocolNames[value], value })),
]
const explicitChoices = computed(() => [
  { name: `As the show: ${props.show.explicit ? 'yes' : 'no'}`, value: 'as the show' },
  { name: 'No', value: 'no' },
  { name: 'Yes', value: 'yes' },
])
const explicitChoice = computed({
  get: () => (extras.value.explicit === null ? 'as the show' : extras.value.explicit ? 'yes' : 'no'),
  set: (choice: string) => set({ explicit: choice === 'as the show' ? null : choice === 'yes' }),
})
</script>

<template>
  <FoldPanel open class="extras">
    <template #line>{{ inherited || 'Nothing here comes from the show’s settings.' }}</template>
    <div class="shown">
      <div>
        <ArtworkField
          without="Uses the show’s artwork if empty."
          :address="artworkAddress ?? show.artworkAddress"
          :fault="faults.find(({ field }) => field === 'artworkId')?.rule"
          @chosen="
            picture => {
              artworkId = picture.id
              emit('artwork', picture.address)
            }
          "
        />
        <button v-if="artworkId" type="button" class="small-button" @click="artworkId = null">
          Use the show’s artwork
        </button>
        <p class="hint">In the feed’s itunes:image, on the page, in the file.</p>
      </div>
      <div class="fields">
        <FormField v-slot="{ id }" label="Explicit" hint="itunes:explicit, and on the page">
          <SelectButton
            :aria-labelledby="`${id}-name`"
            v-model="explicitChoice"
            :options="explicitChoices"
            option-label="name"
            option-value="value"
            :allow-empty="false"
            size="small"
          />
        </FormField>
        <FormField
          v-slot="{ id }"
          label="Author"
          hint="itunes:author, the page, artist in the file"
          :fault="fault('author')"
        >
          <InputText :id="id" v-bind="text('author')" :placeholder="show.author" />
        </FormField>
        <FormField v-slot="{ id }" label="Web page" hint="The item’s link" :fault="fault('page')">
          <InputText :id="id" v-bind="text('page')" type="url" placeholder="Its page here" />
        </FormField>
        <FormField v-slot="{ id }" label="Discussion" :hint="discussionHint" :fault="fault('discussion')">
          <div class="discussion">
            <InputText :id="id" v-bind="text('discussion')" type="url" placeholder="Discussion page" />
            <Select
              v-if="extras.discussion !== null"
              :model-value="extras.discussionProtocol ?? 'page'"
              :options="discussionChoices"
              option-label="name"
              option-value="value"
              aria-label="What is at that address"
              @update:model-value="value => set({ discussionProtocol: value === 'page' ? null : value })"
            />
          </div>
        </FormField>
        <FormField
          v-slot="{ id }"
          label="Shown in place of the number"
          hint="podcast:episode’s display, such as 12½; up to 32 letters"
          :fault="fault('numberShown')"
        >
          <InputText :id="id" v-bind="text('numberShown')" maxlength="32" placeholder="The number" />
        </FormField>
        <FormField v-slot="{ id }" label="Place" hint="podcast:location, and on the page" :fault="fault('place')">
          <InputText :id="id" v-bind="text('place')" />
        </FormField>
        <FormField
          v-slot="{ id }"
          label="Film"
          hint="Shown on the page and loaded on click. If you paste embed code, only its address is kept."
          :fault="fault('film')"
        >
          <InputText
            :id="id"
            :model-value="extras.film ?? ''"
            placeholder="Its address elsewhere, or the code to embed it"
            @update:model-value="words => set({ film: words?.trim() ? filmAddress(words) || words : null })"
          />
        </FormField>
        <FormField
          v-slot="{ id }"
          label="Licence"
          hint="podcast:license, such as cc-by-4.0, or a name and its web address"
          :fault="fault('licence')"
        >
          <InputText :id="id" v-bind="text('licence')" />
        </FormField>
        <label class="check side-by-side col-span-full" for="promotion">
          <Checkbox
            :model-value="extras.isPromotion"
            binary
            input-id="promotion"
            @update:model-value="(isPromotion: boolean) => set({ isPromotion })"
          />
          It contains paid promotion; the page says so
        </label>
      </div>
    </div>
  </FoldPanel>
</template>

<style scoped>
.shown {
  display: grid;
  grid-template-columns: 15rem minmax(0, 1fr);
  gap: var(--space-5);
  padding-block-start: var(--space-3);
}
.fields {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--space-3) var(--space-4);
  align-content: start;
}
.discussion {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: var(--space-2);
}
@media (max-width: 760px) {
  .shown,
  .fields {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
