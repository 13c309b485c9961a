import { askCopyist } from './drafting/job'
import { announceFeed } from './feeds/announce'
import { finishEpisode } from './finishing/job'
import type { JobList } from './jobs/kinds'
import { measureFile } from './measuring/measuring'
import { followListing } from './directories/follow'
import { checkFeed } from './checking/job'
import { indexWords } from './search/job'
import { sendMail } from './mail/send'
import { tellPeople } from './mail/tell'
import { blobKeeper } from './media/blobs'
import type { Platform } from './platform'
import { linkAsking } from './remote/askLinks'
import { remoteService } from './remote/service'
import { layTranscript } from './transcripts/laying'
import { tidying } from './tidying/tidy'
import { uploadService } from './uploads/service'

/** All jobs of the house: what each does, beside what it runs, and what it says when it fails for the last time. */
export function jobList(platform: Platform): JobList {
  const remote = remoteService(platform)
  return {
    'check-address-once': remote.lookBeforeRelease,
    'read-upload': uploadService(platform).reading,
    'check-address': remote.dailyLook,
    'measure-file': measureFile(platform),
    'finish-episode': finishEpisode(platform),
    'ask-links': linkAsking(platform),
    'lay-transcript': layTranscript(platform),
    'ask-copyist': askCopyist(platform),
    'tell-people': tellPeople(platform),
    'check-feed': checkFeed(platform),
    'index-words': indexWords(platform),
    'send-mail': sendMail(platform),
    'announce-feed': announceFeed(platform),
    'follow-listing': followListing(platform),
    'clear-blobs': { lane: 'tidying', run: () => blobKeeper(platform).clear(), gaveUp: null },
    tidy: tidying(platform).job,
  }
}
