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
  { name: 'None', value: null },
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
    <h1 class="text-2xl">{{ existing ? 'Details' : 'New show' }}</h1>
    <PlaceTabs />
    <p class="quiet">
      All of this appears in the feed and can be changed later{{ existing ? '' : ', except the web address' }}.
    </p>
    <form ref="form" novalidate @submit.prevent="existing ? change(existing) : make()">
      <FormField v-slot="{ id }" data-field="name" label="Name" :fault="fault('name')">
        <InputText :id="id" v-model="facts.name" :invalid="!!fault('name')" autofocus />
      </FormField>
      <FormField
        v-if="!existing"
        v-slot="{ id }"
        label="Web address"
        :fault="fault('slug')"
        :hint="`The feed: ${origin}/${address || '…'}/feed.xml`"
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
        label="Description"
        :fault="fault('description')"
        hint="Lists show only the first sentence."
      >
        <Textarea :id="id" v-model="facts.description" rows="3" :invalid="!!fault('description')" />
      </FormField>
      <FormField v-slot="{ id }" data-field="author" label="Author" :fault="fault('author')">
        <InputText :id="id" v-model="facts.author" :invalid="!!fault('author')" />
      </FormField>
      <FormField
        v-slot="{ id }"
        data-field="ownerEmail"
        label="Owner’s email"
        :fault="fault('ownerEmail')"
        hint="Public in the feed; directories write to it."
      >
        <InputText :id="id" v-model="facts.ownerEmail" type="email" :invalid="!!fault('ownerEmail')" />
      </FormField>
      <FormField v-slot="{ id }" data-field="category" label="Category" :fault="fault('category')">
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
      <FormField v-slot="{ id }" label="Subcategory">
        <Select
          v-model="facts.subcategory"
          :label-id="id"
          :aria-labelledby="`${id}-name`"
          :options="subcategories"
          option-label="name"
          option-value="value"
          placeholder="None"
          :disabled="subcategories.length === 1"
        />
      </FormField>
      <FormField
        v-slot="{ id }"
        data-field="language"
        label="Language"
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
      <FormField v-slot="{ id }" label="Time zone" :fault="fault('zone')" hint="Release times use this time zone.">
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
      <FormField v-slot="{ id }" data-field="explicit" label="Explicit content">
        <SelectButton
          v-model="facts.explicit"
          :aria-labelledby="`${id}-name`"
          :allow-empty="false"
          :options="[
            { name: 'No', value: false },
            { name: 'Yes', value: true },
          ]"
          option-label="name"
          option-value="value"
        />
      </FormField>
      <FormField
        v-slot="{ id }"
        data-field="type"
        label="Order"
        hint="Serial: meant to be heard in order, from the first episode."
      >
        <SelectButton
          v-model="facts.type"
          :aria-labelledby="`${id}-name`"
          :allow-empty="false"
          :options="[
            { name: 'Episodic', value: 'episodic' },
            { name: 'Serial', value: 'serial' },
          ]"
          option-label="name"
          option-value="value"
        />
      </FormField>
      <ArtworkField
        without="A show can begin without it."
        class="artwork"
        data-field="artwork"
        :address="artworkAddress"
        :fault="fault('artworkId') && 'This picture cannot be the artwork.'"
        @chosen="takeArtwork"
      />
      <p v-if="problem?.faults" class="wide fault" role="alert">Not saved. Correct the marked fields and save again.</p>
      <ProblemNote v-else-if="problem" class="wide" :problem="problem" />
      <div class="wide actions">
        <Button type="submit" :label="existing ? 'Save' : 'Create show'" :loading="busy" />
        <RouterLink
          v-if="existing || hasShows"
          :to="existing ? { name: 'show', params: { show: existing.slug } } : { name: 'home' }"
          >Cancel</RouterLink
        >
        <button v-else type="button" class="small-button" @click="leave">Sign out</button>
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
