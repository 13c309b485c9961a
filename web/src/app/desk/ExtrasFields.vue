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
import { t } from './messages'

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
  extras.value.discussionProtocol ? t('discussionByProtocolHint') : t('discussionHint'),
)
const inherited = computed(() => {
  const { explicit, author, page } = extras.value
  const names = [
    ...(artworkId.value ? [] : [t('artworkInSentence')]),
    ...(author === null ? [t('authorOfShow', { name: props.show.author })] : []),
    ...(explicit === null ? [props.show.explicit ? t('isExplicit') : t('notExplicit')] : []),
    ...(page === null ? [t('webPageInSentence')] : []),
  ]
  const empty = [
    ...(extras.value.discussion === null ? [t('discussionInSentence')] : []),
    ...(extras.value.place === null ? [t('placeInSentence')] : []),
    ...(extras.value.licence === null ? [t('licenceInSentence')] : []),
  ]
  return [
    names.length > 0 ? t('asTheShowHas', { names: names.join(', ') }) : '',
    empty.length > 0 ? t('emptyFields', { names: empty.join(', ') }) : '',
  ]
    .filter(Boolean)
    .join(' ')
})
const protocolNames: Readonly<Record<(typeof discussionProtocols)[number], string>> = {
  activitypub: t('postByActivityPub'),
  atproto: t('postByAtProtocol'),
}
const discussionChoices = [
  { name: t('discussionPageChoice'), value: 'page' },
  ...discussionProtocols.map(value => ({ name: protocolNames[value], value })),
]
const explicitChoices = computed(() => [
  { name: t('asTheShow', { explicit: props.show.explicit ? 'yes' : 'no' }), value: 'as the show' },
  { name: t('no'), value: 'no' },
  { name: t('yes'), value: 'yes' },
])
const explicitChoice = computed({
  get: () => (extras.value.explicit === null ? 'as the show' : extras.value.explicit ? 'yes' : 'no'),
  set: (choice: string) => set({ explicit: choice === 'as the show' ? null : choice === 'yes' }),
})
</script>

<template>
  <FoldPanel open class="extras">
    <template #line>{{ inherited || t('nothingFromShow') }}</template>
    <div class="shown">
      <div>
        <ArtworkField
          :without="t('usesShowArtwork')"
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
          {{ t('useTheShowsArtwork') }}
        </button>
        <p class="hint">{{ t('artworkHint') }}</p>
      </div>
      <div class="fields">
        <FormField v-slot="{ id }" :label="t('explicit')" :hint="t('explicitHint')">
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
        <FormField v-slot="{ id }" :label="t('author')" :hint="t('authorHint')" :fault="fault('author')">
          <InputText :id="id" v-bind="text('author')" :placeholder="show.author" />
        </FormField>
        <FormField v-slot="{ id }" :label="t('webPage')" :hint="t('webPageHint')" :fault="fault('page')">
          <InputText :id="id" v-bind="text('page')" type="url" :placeholder="t('webPagePlaceholder')" />
        </FormField>
        <FormField v-slot="{ id }" :label="t('discussion')" :hint="discussionHint" :fault="fault('discussion')">
          <div class="discussion">
            <InputText :id="id" v-bind="text('discussion')" type="url" :placeholder="t('discussionPage')" />
            <Select
              v-if="extras.discussion !== null"
              :model-value="extras.discussionProtocol ?? 'page'"
              :options="discussionChoices"
              option-label="name"
              option-value="value"
              :aria-label="t('discussionKind')"
              @update:model-value="value => set({ discussionProtocol: value === 'page' ? null : value })"
            />
          </div>
        </FormField>
        <FormField v-slot="{ id }" :label="t('numberShown')" :hint="t('numberShownHint')" :fault="fault('numberShown')">
          <InputText :id="id" v-bind="text('numberShown')" maxlength="32" :placeholder="t('numberShownPlaceholder')" />
        </FormField>
        <FormField v-slot="{ id }" :label="t('place')" :hint="t('placeHint')" :fault="fault('place')">
          <InputText :id="id" v-bind="text('place')" />
        </FormField>
        <FormField v-slot="{ id }" :label="t('film')" :hint="t('filmHint')" :fault="fault('film')">
          <InputText
            :id="id"
            :model-value="extras.film ?? ''"
            :placeholder="t('filmPlaceholder')"
            @update:model-value="words => set({ film: words?.trim() ? filmAddress(words) || words : null })"
          />
        </FormField>
        <FormField v-slot="{ id }" :label="t('licence')" :hint="t('licenceHint')" :fault="fault('licence')">
          <InputText :id="id" v-bind="text('licence')" />
        </FormField>
        <label class="check side-by-side col-span-full" for="promotion">
          <Checkbox
            :model-value="extras.isPromotion"
            binary
            input-id="promotion"
            @update:model-value="(isPromotion: boolean) => set({ isPromotion })"
          />
          {{ t('isPromotion') }}
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
