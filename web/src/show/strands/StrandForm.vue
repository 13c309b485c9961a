<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import Textarea from 'primevue/textarea'
import { computed, reactive, ref } from 'vue'
import type { Picture } from '@contract/shows'
import { newStrand, type NewStrand, type Strand } from '@contract/strands'
import { slugFrom } from '@core/address/slug'
import { strandAddress, type StrandWay } from '@core/feed/strands'
import ArtworkField from '../shows/ArtworkField.vue'
import { faultsOf } from '../../platform/parts/checked'
import FormField from '../../platform/parts/FormField.vue'
import { t } from './messages'

/** What a strand is called, which episodes belong to it, and what it says otherwise than the show. */
const props = defineProps<{ strand: Strand | null; feedAddress: string; busy: boolean; taken: string | undefined }>()
const emit = defineEmits<{ save: [strand: NewStrand]; cancel: [] }>()
const { name, slug, description, artworkId, goesBy, value, isPrivate } = props.strand ?? {
  name: '',
  slug: '',
  description: null,
  artworkId: null,
  goesBy: 'tag' as StrandWay,
  value: '',
  isPrivate: false,
}
const facts = reactive({ name, slug, description: description ?? '', artworkId, goesBy, value: value ?? '', isPrivate })
const artworkAddress = ref(props.strand?.artworkId ? props.strand.artworkAddress : null)
const isSlugTouched = ref(props.strand !== null)
const address = computed(() => (isSlugTouched.value ? facts.slug : slugFrom(facts.name)))
const faults = ref<Record<string, string>>({})
const ways: { name: string; way: StrandWay; asks: string | null }[] = [
  { name: t('withATag'), way: 'tag', asks: t('theTag') },
  { name: t('ofASeason'), way: 'season', asks: t('theNumberOfTheSeason') },
  { name: t('ofAKind'), way: 'kind', asks: t('fullTrailerOrBonus') },
  { name: t('chosenByHand'), way: 'hand', asks: null },
]
const asks = computed(() => ways.find(({ way }) => way === facts.goesBy)!.asks)

function takeArtwork(picture: Picture): void {
  facts.artworkId = picture.id
  artworkAddress.value = picture.address
}
async function save(): Promise<void> {
  const strand: NewStrand = {
    ...facts,
    slug: address.value,
    description: facts.description.trim() || null,
    value: asks.value ? (facts.goesBy === 'kind' ? facts.value.toLowerCase() : facts.value) : null,
  }
  const found = await faultsOf(newStrand, strand)
  faults.value = Object.fromEntries(found.map(({ field, rule }) => [field, rule]))
  if (found.length === 0) emit('save', strand)
}
</script>

<template>
  <form class="form boxed" novalidate @submit.prevent="save">
    <FormField v-slot="{ id }" :label="t('name')" :fault="faults.name">
      <InputText :id="id" v-model="facts.name" :invalid="!!faults.name" autofocus />
    </FormField>
    <FormField
      v-if="!strand"
      v-slot="{ id }"
      :label="t('webAddress')"
      :fault="faults.slug ?? taken"
      :hint="t('feedAddressHint', { address: strandAddress(feedAddress, address || '…') })"
    >
      <InputText
        :id="id"
        :model-value="address"
        :invalid="!!(faults.slug ?? taken)"
        @update:model-value="
          words => {
            isSlugTouched = true
            facts.slug = words ?? ''
          }
        "
      />
    </FormField>
    <FormField v-slot="{ id }" :label="t('episodes')">
      <Select
        v-model="facts.goesBy"
        :label-id="id"
        :aria-labelledby="`${id}-name`"
        :options="ways"
        option-label="name"
        option-value="way"
      />
    </FormField>
    <FormField v-if="asks" v-slot="{ id }" :label="asks" :fault="faults.value">
      <InputText :id="id" v-model="facts.value" :invalid="!!faults.value" />
    </FormField>
    <FormField
      v-slot="{ id }"
      class="wide"
      :label="t('description')"
      :hint="t('showDescription')"
      :fault="faults.description"
    >
      <Textarea :id="id" v-model="facts.description" rows="2" :invalid="!!faults.description" />
    </FormField>
    <ArtworkField
      class="wide"
      :without="t('usesShowArtwork')"
      :address="artworkAddress"
      :fault="faults.artworkId"
      @chosen="takeArtwork"
    />
    <label class="wide check flex gap-2 items-start">
      <Checkbox v-model="facts.isPrivate" binary />
      <span>{{ t('privateStrandHint') }}</span>
    </label>
    <div class="wide actions">
      <Button type="submit" :label="strand ? t('save') : t('createStrand')" :loading="busy" />
      <Button type="button" :label="t('cancel')" text @click="emit('cancel')" />
    </div>
  </form>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: var(--space-3) var(--space-5);
  padding: var(--space-4);
}
.wide {
  grid-column: 1 / -1;
}
@media (max-width: 40rem) {
  .form {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
