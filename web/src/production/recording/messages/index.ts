import { studioMessages } from '../../../platform/messages'
import own from './en.json'

export const { t, FormattedMessage } = studioMessages(own)
