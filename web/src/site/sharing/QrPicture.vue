<script setup lang="ts">
import QRCode from 'qrcode'
import { ref, watch } from 'vue'
import { t } from './messages'

/** The square that a phone's camera reads, to be put on a card or a poster. */
const props = defineProps<{ address: string }>()
const picture = ref('')
watch(
  () => props.address,
  async address =>
    (picture.value = await QRCode.toDataURL(address, { errorCorrectionLevel: 'M', margin: 4, width: 600 })),
  { immediate: true },
)
</script>

<template>
  <figure class="flex gap-3 items-center m-0">
    <img v-if="picture" class="rounded" :src="picture" :alt="t('qrCodeOf', { address })" width="140" height="140" />
    <figcaption class="small">
      {{ t('scanIt') }}
      <a class="small-button" :href="picture" download="qr.png">{{ t('download') }}</a>
    </figcaption>
  </figure>
</template>
