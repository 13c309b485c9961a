<script setup lang="ts">
import { artworkAt } from '@core/show/artwork'
import { webPictureSet } from '@core/show/webPicture'

defineOptions({ inheritAttrs: false })
/** A picture in the form and size that a browser likes best, and as JPEG for those that know no other. */
withDefaults(
  defineProps<{ address: string; width: number; height: number; alt?: string; isLazy?: boolean; isSquare?: boolean }>(),
  { alt: '', isLazy: false, isSquare: false },
)
</script>

<template>
  <picture>
    <source type="image/webp" :srcset="webPictureSet(address, width)" :sizes="`${width}px`" />
    <img
      v-bind="$attrs"
      :src="isSquare ? artworkAt(address, width > 160 ? 480 : 160) : address"
      :alt="alt"
      :width="width"
      :height="height"
      :loading="isLazy ? 'lazy' : undefined"
    />
  </picture>
</template>
