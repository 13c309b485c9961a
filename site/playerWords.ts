import type { SiteMessages } from './messages'

/** How far a press or an arrow goes. */
export const playerStepSeconds = 15

/** What the player in the browser says, in the language of its page; `{now}` and the like are filled in there. */
export const playerWords = ({ t }: SiteMessages) => ({
  play: t('play'),
  pause: t('pause'),
  position: t('position'),
  timeOf: t('timeOf', { now: '{now}', total: '{total}' }),
  back: t('back', { seconds: playerStepSeconds }),
  forward: t('forward', { seconds: playerStepSeconds }),
  speed: t('speed'),
  chapter: t('chapter'),
  copyLinkAt: t('copyLinkAt', { time: '{time}' }),
  copied: t('copied'),
  share: t('share'),
  miniPlayer: t('miniPlayer'),
  unreachable: t('unreachable'),
})
export type PlayerWords = ReturnType<typeof playerWords>
