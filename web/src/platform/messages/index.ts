import { createMessages, type MessageValues } from '@core/words/messages'
import { type FunctionalComponent, h, type VNode } from 'vue'
import shared from './en.json'

/** How the studio writes dates, numbers and lists. */
export const locale = 'en-GB'

type SharedKey = keyof typeof shared

/**
 * The words of a capability, and those that all have: one action has one word everywhere.
 * Each keeps its own in `messages/en.json`; what stands there is all that it says by itself.
 */
export function studioMessages<OwnKey extends string>(own: Readonly<Record<OwnKey, string>>) {
  const { t, parts } = createMessages<OwnKey | SharedKey>({ ...shared, ...own }, locale)

  /** A message with elements in it: what is `strong`, and a slot for each other tag, which is given the words between. */
  const FormattedMessage: FunctionalComponent<{ of: OwnKey | SharedKey; values?: MessageValues }> = (
    { of, values = {} },
    { slots },
  ) => parts<VNode | VNode[]>(of, values, { strong: ({ words }) => h('strong', words), ...slots })
  FormattedMessage.props = ['of', 'values']

  return { t, FormattedMessage }
}

export const { t, FormattedMessage } = studioMessages({})
