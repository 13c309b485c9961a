<script setup lang="ts">
import { X } from '@lucide/vue'
import AutoComplete from 'primevue/autocomplete'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed, ref } from 'vue'
import { isWebAddress } from '@core/address/web'
import { type Person, personKey } from '@core/episode/fields'
import { type PersonRole, roleGroups } from '@core/people/roles'
import { fold } from '@core/words/fold'
import IconButton from '../../platform/parts/IconButton.vue'
import SmallPicture from '../../show/shows/SmallPicture.vue'
import { t } from './messages'

/** Who has a part in the episode, out of the show's book of people or new. */
const people = defineModel<Person[]>({ required: true })
const props = defineProps<{ known: readonly Person[]; firstRole?: PersonRole; fault?: string }>()

const name = ref('')
const role = ref<PersonRole>(props.firstRole ?? 'Guest')
const address = ref('')
const pictureId = ref<string | null>(null)
const pictureProblem = ref('')
const found = ref<Person[]>([])
const groups = Object.entries(roleGroups).map(([group, roles]) => ({
  group,
  roles: roles.map(each => ({ name: each })),
}))

const mistake = computed(() => {
  if (address.value && !isWebAddress(address.value)) return t('noWebAddress', { address: address.value })
  const key = personKey({ name: name.value, role: role.value })
  return people.value.some(each => personKey(each) === key)
    ? t('personIsHere', { name: name.value, role: role.value })
    : ''
})

function find(words: string): void {
  found.value = props.known.filter(each => fold(each.name).includes(fold(words))).slice(0, 8)
}
function choose(person: Person): void {
  name.value = person.name
  role.value = person.role
  address.value = person.address ?? ''
  pictureId.value = person.pictureId ?? null
}
function add(): void {
  if (!name.value.trim() || mistake.value) return
  const known = props.known.find(each => personKey(each) === personKey({ name: name.value, role: role.value }))
  people.value = [
    ...people.value,
    {
      name: name.value.trim(),
      role: role.value,
      address: address.value || null,
      pictureId: pictureId.value ?? known?.pictureId ?? null,
    },
  ]
  name.value = ''
  address.value = ''
  pictureId.value = null
}
const change = (index: number, part: Partial<Person>): void => {
  people.value = people.value.map((person, at) => (at === index ? { ...person, ...part } : person))
}
const remove = (index: number): void => {
  people.value = people.value.filter((_person, at) => at !== index)
}
</script>

<template>
  <div class="field">
    <span id="people-name" class="field-name">{{ t('people') }}</span>
    <ul v-if="people.length" class="people mt-0 mx-0 mb-2 p-0 list-none" aria-labelledby="people-name">
      <li v-for="(person, index) in people" :key="personKey(person)">
        <SmallPicture
          :model-value="person.pictureId ?? null"
          of="person"
          :name="person.name"
          @update:model-value="pictureId => change(index, { pictureId })"
          @problem="words => (pictureProblem = words)"
        />
        <span class="font-semibold">{{ person.name }}</span>
        <Select
          :model-value="person.role"
          :options="groups"
          option-group-label="group"
          option-group-children="roles"
          option-label="name"
          option-value="name"
          size="small"
          :aria-label="t('roleOf', { name: person.name })"
          @update:model-value="(changed: PersonRole) => change(index, { role: changed })"
        />
        <a v-if="person.address" class="small one-line" :href="person.address" target="_blank" rel="noopener">{{
          person.address.replace(/^https?:\/\//, '')
        }}</a>
        <span v-else class="small quiet one-line">{{ t('noLink') }}</span>
        <IconButton :name="t('removeNamed', { name: person.name })" :icon="X" @click="remove(index)" />
      </li>
    </ul>
    <form class="new flex flex-wrap gap-2" :aria-label="t('addAPerson')" @submit.prevent="add">
      <AutoComplete
        v-model="name"
        class="name"
        fluid
        input-id="person-name"
        :suggestions="found"
        option-label="name"
        :delay="80"
        :show-empty-message="false"
        :placeholder="t('name')"
        :aria-label="t('name')"
        @complete="({ query }) => find(query)"
        @option-select="({ value }) => choose(value)"
      />
      <Select
        v-model="role"
        :options="groups"
        option-group-label="group"
        option-group-children="roles"
        option-label="name"
        option-value="name"
        :aria-label="t('role')"
      />
      <InputText
        v-model="address"
        class="address"
        type="url"
        :placeholder="t('pagePlaceholder')"
        :aria-label="t('address')"
      />
      <Button type="submit" :label="t('add')" outlined :disabled="!name || !!mistake" />
    </form>
    <span v-if="mistake || fault || pictureProblem" class="fault" role="alert">{{
      mistake || fault || pictureProblem
    }}</span>
    <span v-else class="hint">{{ t('peopleHint') }}</span>
  </div>
</template>

<style scoped>
.people li {
  display: grid;
  grid-template-columns: 3.6rem minmax(8rem, 1fr) 13rem minmax(0, 1.4fr) auto;
  gap: var(--space-3);
  align-items: center;
  padding-block: var(--space-1);
  border-bottom: 1px solid var(--edge);
}
.new .name,
.new .address {
  flex: 1 1 12rem;
}
@media (max-width: 620px) {
  .people li {
    grid-template-columns: 3.6rem 1fr auto;
  }
}
</style>
