<script setup lang="ts">
import Button from 'primevue/button'
import { storeToRefs } from 'pinia'
import { computed, ref, watch } from 'vue'
import { siteLanguageOf } from '@core/site/languages'
import { type Face, type Layout, layouts } from '@core/site/siteTheme'
import FormField from '../../platform/parts/FormField.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import SmallPicture from '../../show/shows/SmallPicture.vue'
import { siteLanguageHint } from '../../show/shows/languages'
import { useShows } from '../../show/shows/shows'
import BlockList from './BlockList.vue'
import ColourChoice from './ColourChoice.vue'
import LayoutSketch from './LayoutSketch.vue'
import { useSiteTheme } from './siteTheme'
import LoadingShape from '../../platform/parts/LoadingShape.vue'
import PageHead from '../../platform/parts/PageHead.vue'
import PlaceTabs from '../../platform/parts/PlaceTabs.vue'
import SeenPages from './SeenPages.vue'
import { t } from './messages'

/** How the show's pages look, seen while it is changed; visitors see it once it is taken over. */
const props = defineProps<{ show: string }>()
const shows = useShows()
const store = useSiteTheme()
const { themes, tried, problem, busy, differs } = storeToRefs(store)
const show = computed(() => shows.bySlug(props.show)!)
watch(
  () => show.value.id,
  id => void store.load(id),
  { immediate: true },
)

const layoutNames: Readonly<Record<Layout, { name: string; words: string }>> = {
  shore: { name: t('shore'), words: t('shoreTells') },
  letter: { name: t('letter'), words: t('letterTells') },
  quay: { name: t('quay'), words: t('quayTells') },
  horizon: { name: t('horizon'), words: t('horizonTells') },
}
const faceNames: Readonly<Record<Face, string>> = { literata: t('serif'), 'public-sans': t('sansSerif') }
const path = ref('')
const pictureProblem = ref('')
/** Another address for each version, so that the frame loads it again. */
const address = computed(
  () =>
    themes.value &&
    `/api/v1/shows/${show.value.id}/theme/page?path=${encodeURIComponent(path.value)}&v=${themes.value.version}`,
)
</script>

<template>
  <div class="themes">
    <section class="stacked gap-3 content-start overflow-y-auto pe-2" aria-labelledby="site-name">
      <PageHead id="site-name" :heading="t('site')"
        ><a :href="show.pageAddress" target="_blank">{{ t('asVisitorsSeeIt') }}</a></PageHead
      >
      <PlaceTabs />
      <ProblemNote v-if="problem" :problem="problem" />
      <LoadingShape v-if="!tried && !problem" :what="t('theLook')" :lines="8" />
      <template v-if="themes && tried">
        <div class="actions">
          <Button :label="t('publishTheLook')" :disabled="!differs || busy" @click="store.step('take-over')" />
          <Button v-if="differs" :label="t('discard')" text :disabled="busy" @click="store.step('leave')" />
          <Button
            v-else-if="themes.former"
            :label="t('restoreThePreviousLook')"
            text
            :disabled="busy"
            @click="store.step('put-back')"
          />
        </div>
        <p class="small quiet" role="status">
          {{ differs ? t('lookIsPreview') : t('lookIsPublic') }}
        </p>
        <p v-if="!siteLanguageOf(show.language)" class="small quiet">{{ siteLanguageHint(show.language) }}</p>
        <fieldset class="layouts spaced m-0 p-0 border-0 gap-1">
          <legend class="p-0 font-semibold text-s">{{ t('layout') }}</legend>
          <label v-for="layout in layouts" :key="layout" :class="{ chosen: tried.layout === layout }">
            <input
              class="out-of-sight"
              type="radio"
              name="layout"
              :checked="tried.layout === layout"
              @change="store.change({ layout })"
            />
            <LayoutSketch :layout="layout" />
            <b class="self-end">{{ layoutNames[layout].name }}</b>
            <span class="small quiet self-start">{{ layoutNames[layout].words }}</span>
          </label>
        </fieldset>
        <fieldset class="faces m-0 p-0 border-0">
          <legend class="p-0 font-semibold text-s">{{ t('typeface') }}</legend>
          <label v-for="(name, face) in faceNames" :key="face">
            <input type="radio" name="face" :checked="tried.face === face" @change="store.change({ face })" />
            {{ name }}
          </label>
        </fieldset>
        <ColourChoice :colours="tried.colours" :found="themes.found" @change="colours => store.change({ colours })" />
        <FormField :label="t('pictureAtTheTop')" :fault="pictureProblem || undefined" :hint="t('aWideOneOptional')">
          <SmallPicture
            :model-value="tried.headerPictureId"
            of="header"
            name="the top of the pages"
            @update:model-value="headerPictureId => store.change({ headerPictureId })"
            @problem="words => (pictureProblem = words)"
          />
        </FormField>
        <div class="field">
          <span class="field-name">{{ t('onTheShowsPage') }}</span>
          <BlockList :blocks="tried.blocks" @change="blocks => store.change({ blocks })" />
        </div>
      </template>
    </section>
    <SeenPages v-if="tried" :address="address" :page-address="show.pageAddress" @open="to => (path = to)" />
  </div>
</template>

<style scoped>
.themes {
  display: grid;
  grid-template-columns: 20rem minmax(0, 1fr);
  gap: var(--space-5);
  flex: 1 1 0;
  min-height: 0;
  padding: var(--space-5);
}
.layouts label {
  display: grid;
  grid-template-columns: 3.75rem 1fr;
  gap: 0 var(--space-3);
  align-items: center;
  padding: var(--space-1) var(--space-2);
  border: 1px solid var(--edge);
  border-radius: var(--round);
  line-height: 1.3;
  cursor: pointer;
}
.layouts label.chosen {
  border-color: var(--accent);
  box-shadow: inset 0 0 0 1px var(--accent);
}
.layouts label:has(:focus-visible) {
  outline: var(--focus);
  outline-offset: 2px;
}
.layouts svg {
  grid-row: 1 / 3;
}
.faces label {
  display: inline-flex;
  gap: var(--space-2);
  align-items: center;
  min-height: max(28px, var(--target));
  margin-inline-end: var(--space-4);
}
@media (max-width: 60rem) {
  .themes {
    flex: none;
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
