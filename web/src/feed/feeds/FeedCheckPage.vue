<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Textarea from 'primevue/textarea'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { useRoute } from 'vue-router'
import { type FeedChecked, feedCheck } from '@contract/feed'
import { amount } from '@core/words/amounts'
import FormField from '../../platform/parts/FormField.vue'
import PageLayout from '../../platform/parts/PageLayout.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useAttempt } from '../../platform/parts/attempt'
import { useShows } from '../../show/shows/shows'
import FeedFindings from './FeedFindings.vue'
import { useFeed } from './feed'
import { t } from './messages'

/** Checks the feed at any address, or one that is pasted. */
const props = defineProps<{ show: string }>()
const feed = useFeed()
const shows = useShows()
const route = useRoute()
const address = ref(String(route.query.address ?? ''))
const text = ref('')
const isPasting = ref(false)
const { problem, busy, attempt } = useAttempt(t('nothingChecked'))
const checked = shallowRef<FeedChecked | null>(null)
const checkedAddress = ref('')
const isOurs = computed(() => checkedAddress.value === shows.bySlug(props.show)?.feedAddress)
const fault = ref('')

async function check(): Promise<void> {
  const wanted = isPasting.value ? { text: text.value } : { address: address.value }
  const read = feedCheck.safeParse(wanted)
  fault.value = ''
  problem.value = null
  if (!read.success) {
    fault.value = isPasting.value ? t('feedTextRule') : t('feedAddressRule')
    return
  }
  checked.value = null
  await attempt(async () => {
    checked.value = await feed.check(read.data)
    checkedAddress.value = isPasting.value ? '' : address.value
  })
}
onMounted(() => {
  if (address.value) void check()
})
</script>

<template>
  <PageLayout :heading="t('checkAFeed')">
    <template #purpose>
      {{ t('checkFeedHint') }}
    </template>
    <form class="spaced gap-3" novalidate @submit.prevent="check">
      <FormField v-slot="{ id }" :label="isPasting ? t('theFeedItself') : t('addressOfTheFeed')" :fault="fault">
        <Textarea v-if="isPasting" :id="id" v-model="text" rows="8" :invalid="fault !== ''" spellcheck="false" />
        <InputText
          v-else
          :id="id"
          v-model="address"
          type="url"
          placeholder="https://"
          :invalid="fault !== ''"
          autofocus
          spellcheck="false"
        />
      </FormField>
      <div class="actions">
        <Button type="submit" :label="t('checkIt')" :loading="busy" />
        <button type="button" class="small-button" @click="isPasting = !isPasting">
          {{ isPasting ? t('giveItsAddressInstead') : t('pasteItInstead') }}
        </button>
        <span v-if="busy" class="quiet" role="status">{{ t('fetching') }}</span>
      </div>
    </form>
    <ProblemNote v-if="problem" :problem="problem" />
    <section v-if="checked" class="spaced" aria-labelledby="found">
      <h2 class="text-l" id="found">{{ checked.title || t('aFeedWithoutATitle') }}</h2>
      <p class="quiet">
        {{ t('checkedSize', { count: checked.items, size: amount(checked.bytes) }) }}
        <template v-if="checked.named > checked.asked">{{
          t('someAddressesChecked', { asked: checked.asked, named: checked.named })
        }}</template>
        <template v-else>{{ t('addressesChecked', { asked: checked.asked }) }}</template>
      </p>
      <FeedFindings :findings="checked.findings" :rules="checked.rules" :show="show" :is-ours="isOurs" @fixed="check" />
    </section>
  </PageLayout>
</template>
