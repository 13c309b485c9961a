import { studioMessages } from '../../messages'
import own from './en.json'

export const { t, FormattedMessage } = studioMessages(own)
