import type { EpisodeSummary } from '@contract/episodes'
import type { Sending } from './uploads'
import { t } from './messages'

type Sendings = Readonly<Record<string, Sending>>
const stillComing: readonly Sending['state'][] = ['queued', 'sending', 'paused', 'waiting', 'sent']

/** What an episode is called wherever it is listed: by its title, else by the file that comes in for it. */
export const episodeName = (
  { id, title, arriving }: Pick<EpisodeSummary, 'id' | 'title' | 'arriving'>,
  sendings: Sendings,
): string => title || arriving || sendings[id]?.fileName || t('untitledEpisode')

/** Whether an episode's audio is on its way, sent by this window or another one. */
export const isArriving = (
  { id, hasAudio, arriving }: Pick<EpisodeSummary, 'id' | 'hasAudio' | 'arriving'>,
  sendings: Sendings,
): boolean => !hasAudio && (arriving !== null || stillComing.includes(sendings[id]?.state as Sending['state']))
