import { notesClosed } from './notesClosed'
import { titleLetters } from './titleLetters'
import { audioDuration } from './audioDuration'
import { audioForm } from './audioForm'
import { answers } from './answers'
import { anyItems } from './anyItems'
import { artworkAnswers } from './artworkAnswers'
import { artworkForm } from './artworkForm'
import { artworkSize } from './artworkSize'
import { audioAnswers } from './audioAnswers'
import { audioBytes } from './audioBytes'
import { audioHead } from './audioHead'
import { audioRanges } from './audioRanges'
import { audioRedirects } from './audioRedirects'
import { audioType } from './audioType'
import { bareTitle } from './bareTitle'
import { blockedShow } from './blockedShow'
import { builtDate } from './builtDate'
import { caching } from './caching'
import { chaptersAnswer } from './chaptersAnswer'
import { chaptersType } from './chaptersType'
import { completeShow } from './completeShow'
import { compressed } from './compressed'
import { contentType } from './contentType'
import { dateAhead } from './dateAhead'
import { dateForm } from './dateForm'
import { dateWeekday } from './dateWeekday'
import { dateZone } from './dateZone'
import { duration } from './duration'
import { enclosure } from './enclosure'
import { enclosureAddress } from './enclosureAddress'
import { enclosureEnding } from './enclosureEnding'
import { enclosureLength } from './enclosureLength'
import { enclosureType } from './enclosureType'
import { encoding } from './encoding'
import { episodeKind } from './episodeKind'
import { explicitValue } from './explicitValue'
import { feedSize } from './feedSize'
import { fundingAddress } from './fundingAddress'
import { headAnswer } from './headAnswer'
import { hookLength } from './hookLength'
import { itemArtwork } from './itemArtwork'
import { itemDate } from './itemDate'
import { itemGuid } from './itemGuid'
import { itemLink } from './itemLink'
import { itemNotes } from './itemNotes'
import { itemTitle } from './itemTitle'
import { knownCategory } from './knownCategory'
import { knownNamespaces } from './knownNamespaces'
import { lastingAddress } from './lastingAddress'
import { lastingRedirects } from './lastingRedirects'
import { lockedShow } from './lockedShow'
import { manyKeywords } from './manyKeywords'
import { movedShow } from './movedShow'
import { movingShow } from './movingShow'
import { newestFirst } from './newestFirst'
import { noDoctype } from './noDoctype'
import { notModified } from './notModified'
import { notesLength } from './notesLength'
import { notesLinks } from './notesLinks'
import { notesMarkup } from './notesMarkup'
import { notesScript } from './notesScript'
import { numberForm } from './numberForm'
import { numberOrder } from './numberOrder'
import { oneChannel } from './oneChannel'
import { oneEnclosure } from './oneEnclosure'
import { ownAddress } from './ownAddress'
import { ownerEmail } from './ownerEmail'
import { permalinkGuid } from './permalinkGuid'
import { personName } from './personName'
import { plainElements } from './plainElements'
import { rssVersion } from './rssVersion'
import { sameEnclosure } from './sameEnclosure'
import { sameGuid } from './sameGuid'
import { sameMoment } from './sameMoment'
import { sameNumber } from './sameNumber'
import { sameTitle } from './sameTitle'
import { secureAddress } from './secureAddress'
import { selfLink } from './selfLink'
import { serialNumbers } from './serialNumbers'
import { showArtwork } from './showArtwork'
import { showAuthor } from './showAuthor'
import { showCategory } from './showCategory'
import { showDescription } from './showDescription'
import { showDescriptionLength } from './showDescriptionLength'
import { showExplicit } from './showExplicit'
import { showGuid } from './showGuid'
import { showImage } from './showImage'
import { showLanguage } from './showLanguage'
import { showLink } from './showLink'
import { showTitle } from './showTitle'
import { showTitleLength } from './showTitleLength'
import { showType } from './showType'
import { soundbitePlace } from './soundbitePlace'
import { transcriptAnswers } from './transcriptAnswers'
import { transcriptType } from './transcriptType'
import { ttl } from './ttl'
import { validators } from './validators'
import { wellFormed } from './wellFormed'
import type { FeedRule } from './rule'

/** Every rule, in the order in which people meet what it is about: the document, the show, its episodes, how they answer. */
export const feedRules: readonly FeedRule[] = [
  wellFormed,
  encoding,
  rssVersion,
  oneChannel,
  knownNamespaces,
  noDoctype,
  feedSize,
  plainElements,
  showTitle,
  showTitleLength,
  showLink,
  showDescription,
  showDescriptionLength,
  showLanguage,
  showCategory,
  knownCategory,
  showExplicit,
  explicitValue,
  showArtwork,
  showImage,
  showAuthor,
  ownerEmail,
  showType,
  serialNumbers,
  selfLink,
  ownAddress,
  showGuid,
  lockedShow,
  blockedShow,
  movedShow,
  movingShow,
  completeShow,
  builtDate,
  ttl,
  fundingAddress,
  anyItems,
  manyKeywords,
  itemTitle,
  bareTitle,
  titleLetters,
  sameTitle,
  itemGuid,
  sameGuid,
  permalinkGuid,
  itemDate,
  dateForm,
  dateWeekday,
  dateZone,
  dateAhead,
  newestFirst,
  sameMoment,
  numberOrder,
  sameNumber,
  numberForm,
  episodeKind,
  enclosure,
  oneEnclosure,
  enclosureAddress,
  enclosureLength,
  enclosureType,
  enclosureEnding,
  sameEnclosure,
  lastingAddress,
  duration,
  itemNotes,
  notesLength,
  notesMarkup,
  notesScript,
  notesClosed,
  notesLinks,
  hookLength,
  itemLink,
  transcriptType,
  chaptersType,
  personName,
  soundbitePlace,
  itemArtwork,
  answers,
  contentType,
  secureAddress,
  validators,
  notModified,
  caching,
  compressed,
  headAnswer,
  lastingRedirects,
  audioAnswers,
  audioBytes,
  audioDuration,
  audioType,
  audioForm,
  audioRanges,
  audioHead,
  audioRedirects,
  artworkAnswers,
  artworkSize,
  artworkForm,
  transcriptAnswers,
  chaptersAnswer,
]
