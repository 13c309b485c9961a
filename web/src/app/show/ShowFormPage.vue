<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import Textarea from 'primevue/textarea'
import { computed, nextTick, onMounted, reactive, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { newShow, type Picture, type Show, showChange } from '@contract/shows'
import { slugFrom } from '@core/address/slug'
import { categories } from '@core/feed/categories'
import { artworkAt } from '@core/show/artwork'
import SaveOutlook from '../../feed/feeds/SaveOutlook.vue'
import ArtworkField from '../../show/shows/ArtworkField.vue'
import FormField from '../../platform/parts/FormField.vue'
import { focusField } from '../../platform/parts/fields'
import PlaceTabs from '../../platform/parts/PlaceTabs.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { languages, siteLanguageHint } from '../../show/shows/languages'
import { useSave } from '../../platform/parts/attempt'
import { useSession } from '../../people/account/session'
import { useShows } from '../../show/shows/shows'
import { zonesWith } from '../../platform/time/zones'
import { t } from './messages'

/** Makes a show, or changes the facts of the one named; everything it asks for stands in the feed. */
const props = defineProps<{ show?: string }>()
const router = useRouter()
const route = useRoute()
const shows = useShows()
const sessions = useSession()
const existing = computed(() => (props.show ? shows.bySlug(props.show) : null))
const hasShows = computed(() => (shows.list?.total ?? 0) > 0)
const origin = window.location.origin

const facts = reactive({
  name: '',
  description: '',
  language: 'en',
  author: '',
  ownerEmail: sessions.session?.account?.email ?? '',
  category: 'Arts',
  subcategory: null as string | null,
  explicit: false,
  type: 'episodic' as 'episodic' | 'serial',
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  artworkId: '',
})
const slug = ref('')
const slugTouched = ref(false)
const artworkAddress = ref<string | null>(null)
const form = ref<HTMLFormElement>()
const { problem, busy, fault, save } = useSave(form)
const outlook = ref<InstanceType<typeof SaveOutlook>>()

onMounted(() => {
  if (!shows.list) void shows.loadList().catch(() => undefined)
  if (!existing.value) return
  const { name, description, language, author, ownerEmail, category, subcategory, explicit, type, zone, artworkId } =
    existing.value
  Object.assign(facts, {
    name,
    description,
    language,
    author,
    ownerEmail,
    category,
    subcategory,
    explicit,
    type,
    zone,
    artworkId: existing.value.artworkIsProvisional ? '' : artworkId,
  })
  artworkAddress.value = artworkAt(existing.value.artworkAddress, 480)
  void nextTick(() => focusField(String(route.query.at ?? '')))
})

const address = computed(() => (slugTouched.value ? slug.value : slugFrom(facts.name, { language: facts.language })))
const zones = zonesWith(facts.zone)
const subcategories = computed(() => [
  { name: t('none'), value: null },
  ...(categories[facts.category] ?? []).map(name => ({ name, value: name })),
])

function takeArtwork(picture: Picture): void {
  facts.artworkId = picture.id
  artworkAddress.value = picture.address
}

async function leave(): Promise<void> {
  await sessions.leave()
  await router.push({ name: 'sign-in' })
}

async function make(): Promise<void> {
  const made = { ...facts, artworkId: facts.artworkId || null, slug: address.value }
  await save(newShow, made, async () => lead(await shows.create(made)))
}
async function change(to: Show): Promise<void> {
  const changed = { ...facts, artworkId: facts.artworkId || undefined, version: to.version }
  await save(showChange, changed, async () => {
    if (!(await outlook.value!.ask(changed))) return false
    return lead(await shows.change(to.id, changed))
  })
}
async function lead({ slug: show }: Show): Promise<void> {
  await router.push({ name: 'show', params: { show } })
}
</script>

<template>
  <component :is="existing ? 'div' : 'main'" class="page">
    <h1 class="text-2xl">{{ existing ? t('details') : t('newShow') }}</h1>
    <PlaceTabs />
    <p class="quiet">
      {{ existing ? t('allCanChange') : t('allButAddressCanChange') }}
    </p>
    <form ref="form" novalidate @submit.prevent="existing ? change(existing) : make()">
      <FormField v-slot="{ id }" data-field="name" :label="t('name')" :fault="fault('name')">
        <InputText :id="id" v-model="facts.name" :invalid="!!fault('name')" autofocus />
      </FormField>
      <FormField
        v-if="!existing"
        v-slot="{ id }"
        :label="t('webAddress')"
        :fault="fault('slug')"
        :hint="t('feedAddressHint', { address: `${origin}/${address || '…'}/feed.xml` })"
      >
        <InputText
          :id="id"
          :model-value="address"
          :invalid="!!fault('slug')"
          @update:model-value="
            words => {
              slugTouched = true
              slug = words ?? ''
            }
          "
        />
      </FormField>
      <FormField
        v-slot="{ id }"
        class="wide"
        data-field="description"
        :label="t('description')"
        :fault="fault('description')"
        :hint="t('descriptionHint')"
      >
        <Textarea :id="id" v-model="facts.description" rows="3" :invalid="!!fault('description')" />
      </FormField>
      <FormField v-slot="{ id }" data-field="author" :label="t('author')" :fault="fault('author')">
        <InputText :id="id" v-model="facts.author" :invalid="!!fault('author')" />
      </FormField>
      <FormField
        v-slot="{ id }"
        data-field="ownerEmail"
        :label="t('ownersEmail')"
        :fault="fault('ownerEmail')"
        :hint="t('ownerEmailHint')"
      >
        <InputText :id="id" v-model="facts.ownerEmail" type="email" :invalid="!!fault('ownerEmail')" />
      </FormField>
      <FormField v-slot="{ id }" data-field="category" :label="t('category')" :fault="fault('category')">
        <Select
          v-model="facts.category"
          :label-id="id"
          :aria-labelledby="`${id}-name`"
          :options="Object.keys(categories)"
          filter
          auto-filter-focus
          @update:model-value="facts.subcategory = null"
        />
      </FormField>
      <FormField v-slot="{ id }" :label="t('subcategory')">
        <Select
          v-model="facts.subcategory"
          :label-id="id"
          :aria-labelledby="`${id}-name`"
          :options="subcategories"
          option-label="name"
          option-value="value"
          :placeholder="t('none')"
          :disabled="subcategories.length === 1"
        />
      </FormField>
      <FormField
        v-slot="{ id }"
        data-field="language"
        :label="t('language')"
        :fault="fault('language')"
        :hint="siteLanguageHint(facts.language)"
      >
        <Select
          v-model="facts.language"
          :label-id="id"
          :aria-labelledby="`${id}-name`"
          :options="languages"
          option-label="name"
          option-value="code"
          filter
          auto-filter-focus
        />
      </FormField>
      <FormField v-slot="{ id }" :label="t('timeZone')" :fault="fault('zone')" :hint="t('timeZoneHint')">
        <Select
          v-model="facts.zone"
          :label-id="id"
          :aria-labelledby="`${id}-name`"
          :options="zones"
          filter
          auto-filter-focus
          :virtual-scroller-options="{ itemSize: 38 }"
        />
      </FormField>
      <FormField v-slot="{ id }" data-field="explicit" :label="t('explicitContent')">
        <SelectButton
          v-model="facts.explicit"
          :aria-labelledby="`${id}-name`"
          :allow-empty="false"
          :options="[
            { name: t('no'), value: false },
            { name: t('yes'), value: true },
          ]"
          option-label="name"
          option-value="value"
        />
      </FormField>
      <FormField v-slot="{ id }" data-field="type" :label="t('order')" :hint="t('orderHint')">
        <SelectButton
          v-model="facts.type"
          :aria-labelledby="`${id}-name`"
          :allow-empty="false"
          :options="[
            { name: t('episodic'), value: 'episodic' },
            { name: t('serial'), value: 'serial' },
          ]"
          option-label="name"
          option-value="value"
        />
      </FormField>
      <ArtworkField
        :without="t('withoutArtwork')"
        class="artwork"
        data-field="artwork"
        :address="artworkAddress"
        :fault="fault('artworkId') && t('artworkFaulty')"
        @chosen="takeArtwork"
      />
      <p v-if="problem?.faults" class="wide fault" role="alert">{{ t('notSavedFieldsFaulty') }}</p>
      <ProblemNote v-else-if="problem" class="wide" :problem="problem" />
      <div class="wide actions">
        <Button type="submit" :label="existing ? t('save') : t('createShow')" :loading="busy" />
        <RouterLink
          v-if="existing || hasShows"
          :to="existing ? { name: 'show', params: { show: existing.slug } } : { name: 'home' }"
          >{{ t('cancel') }}</RouterLink
        >
        <button v-else type="button" class="small-button" @click="leave">{{ t('signOut') }}</button>
      </div>
    </form>
    <SaveOutlook v-if="existing" ref="outlook" :show="existing" />
  </component>
</template>

<style scoped>
.page {
  max-width: 70rem;
  margin: 0 auto;
  padding: var(--space-4) var(--space-6) var(--space-5);
}
form {
  display: grid;
  grid-template-columns: 1fr 1fr 15rem;
  /* What the artwork needs more than the fields beside it lies below them, not between them. */
  grid-template-rows: repeat(8, auto) 1fr;
  gap: var(--space-3) var(--space-5);
  margin-top: var(--space-4);
}
form > * {
  min-width: 0;
}
.wide {
  grid-column: 1 / 3;
}
.artwork {
  grid-area: 1 / 3 / span 9 / 4;
}
@media (max-width: 1000px) {
  form {
    grid-template-columns: 1fr 1fr;
    grid-template-rows: none;
  }
  .artwork {
    grid-area: auto / 1 / auto / -1;
  }
}
@media (max-width: 40rem) {
  form {
    grid-template-columns: 1fr;
  }
  .wide {
    grid-column: auto;
  }
}
</style>
