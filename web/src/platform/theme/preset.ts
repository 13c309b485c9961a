import { definePreset } from '@primeuix/themes'
import Aura from '@primeuix/themes/aura'

/** The same by day and by night: the tokens tell them apart. */
const bothSchemes = <Scheme>(of: Scheme) => ({ colorScheme: { light: of, dark: of } })

/** Both themes read the same tokens; theme/tokens.css says what they are by day and by night. */
const scheme = {
  primary: {
    color: 'var(--accent)',
    contrastColor: 'var(--on-accent)',
    hoverColor: 'var(--accent-strong)',
    activeColor: 'var(--accent-strong)',
  },
  highlight: {
    background: 'var(--accent-wash)',
    focusBackground: 'var(--accent-wash)',
    color: 'var(--ink)',
    focusColor: 'var(--ink)',
  },
  text: { color: 'var(--ink)', hoverColor: 'var(--ink)', mutedColor: 'var(--ink-soft)', hoverMutedColor: 'var(--ink)' },
  content: {
    background: 'var(--sheet)',
    hoverBackground: 'var(--accent-wash)',
    borderColor: 'var(--edge)',
    color: 'var(--ink)',
    hoverColor: 'var(--ink)',
  },
  overlay: {
    select: { background: 'var(--sheet)', borderColor: 'var(--edge)', color: 'var(--ink)' },
    popover: { background: 'var(--sheet)', borderColor: 'var(--edge)', color: 'var(--ink)' },
    modal: { background: 'var(--sheet)', borderColor: 'var(--edge)', color: 'var(--ink)' },
  },
  list: {
    option: {
      focusBackground: 'var(--accent-wash)',
      selectedBackground: 'var(--accent-wash)',
      selectedFocusBackground: 'var(--accent-wash)',
      color: 'var(--ink)',
      focusColor: 'var(--ink)',
      selectedColor: 'var(--ink)',
      selectedFocusColor: 'var(--ink)',
      icon: { color: 'var(--ink-soft)', focusColor: 'var(--ink)' },
    },
    optionGroup: { background: 'transparent', color: 'var(--ink-soft)' },
  },
  formField: {
    background: 'var(--sheet)',
    disabledBackground: 'var(--sheet-sunk)',
    filledBackground: 'var(--sheet)',
    filledHoverBackground: 'var(--sheet)',
    filledFocusBackground: 'var(--sheet)',
    borderColor: 'var(--edge-strong)',
    hoverBorderColor: 'var(--accent)',
    focusBorderColor: 'var(--accent)',
    invalidBorderColor: 'var(--signal)',
    color: 'var(--ink)',
    disabledColor: 'var(--ink-soft)',
    placeholderColor: 'var(--ink-soft)',
    invalidPlaceholderColor: 'var(--ink-soft)',
    iconColor: 'var(--ink-soft)',
    shadow: 'none',
  },
  mask: { background: 'var(--veil)', color: 'var(--ink)' },
}

export const preset = definePreset(Aura, {
  semantic: {
    focusRing: { width: '2px', style: 'solid', color: 'var(--accent)', offset: '2px' },
    formField: { borderRadius: 'var(--round)', paddingX: '0.65rem', paddingY: '0.5rem' },
    colorScheme: { light: scheme, dark: scheme },
  },
  components: {
    tabs: { tablist: { background: 'transparent' }, tab: { padding: '0.5rem 1rem' } },
    chip: bothSchemes({
      root: { background: 'var(--accent-wash)', color: 'var(--ink)' },
      removeIcon: { color: 'var(--ink-soft)' },
    }),
    togglebutton: {
      colorScheme: Object.fromEntries(
        ['light', 'dark'].map(name => [
          name,
          {
            root: {
              background: 'var(--sheet-sunk)',
              checkedBackground: 'var(--sheet-sunk)',
              hoverBackground: 'var(--sheet-sunk)',
              borderColor: 'var(--sheet-sunk)',
              checkedBorderColor: 'var(--sheet-sunk)',
              color: 'var(--ink-soft)',
              hoverColor: 'var(--ink)',
              checkedColor: 'var(--ink)',
            },
            content: { checkedBackground: 'var(--sheet)' },
          },
        ]),
      ),
    },
    button: {
      root: { borderRadius: 'var(--round)', paddingX: '0.9rem', paddingY: '0.5rem', label: { fontWeight: '600' } },
      colorScheme: Object.fromEntries(
        ['light', 'dark'].map(name => [
          name,
          {
            outlined: {
              primary: {
                borderColor: 'var(--edge-strong)',
                color: 'var(--accent)',
                hoverBackground: 'var(--accent-wash)',
                activeBackground: 'var(--accent-wash)',
              },
            },
            text: {
              primary: {
                color: 'var(--accent)',
                hoverBackground: 'var(--accent-wash)',
                activeBackground: 'var(--accent-wash)',
              },
            },
          },
        ]),
      ),
    },
  },
})
