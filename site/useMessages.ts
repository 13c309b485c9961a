import { type FunctionalComponent, inject, type InjectionKey } from 'vue'
import type { MessageValues } from '@core/words/messages'
import type { MessageKey, SiteMessages } from './messages'

export const messagesKey: InjectionKey<SiteMessages> = Symbol('messages')

/** The words of the page that is drawn. */
export const useMessages = (): SiteMessages => inject(messagesKey)!

/** A message that has elements in it: a slot for each of its tags, which is given the words between them. */
export const FormattedMessage: FunctionalComponent<{ of: MessageKey; values?: MessageValues }> = (
  { of, values = {} },
  { slots },
) => useMessages().parts(of, values, slots)
FormattedMessage.props = ['of', 'values']
