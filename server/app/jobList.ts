import { askTranscriptionService } from '../words/drafting/job'
import { announceFeed } from '../feed/feeds/announce'
import { finishEpisode } from '../production/finishing/job'
import type { JobList } from '../platform/jobs/kinds'
import { measureFile } from '../production/measuring/measuring'
import { followListing } from '../feed/directories/follow'
import { checkFeed } from '../feed/checking/job'
import { indexWords } from '../words/search/job'
import { sendMail } from '../release/mail/send'
import { tellPeople } from '../release/mail/tell'
import { blobKeeper } from '../platform/storage/blobs'
import type { Platform } from '../platform/platform'
import { linkAsking } from '../production/remote/askLinks'
import { remoteService } from '../production/remote/service'
import { alignTranscript } from '../words/transcripts/forcedAlignment'
import { retention } from './retention/retention'
import { uploadService } from '../production/uploads/service'

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
    'align-transcript': alignTranscript(platform),
    'ask-transcription-service': askTranscriptionService(platform),
    'tell-people': tellPeople(platform),
    'check-feed': checkFeed(platform),
    'index-words': indexWords(platform),
    'send-mail': sendMail(platform),
    'announce-feed': announceFeed(platform),
    'follow-listing': followListing(platform),
    'clear-blobs': { lane: 'retention', run: () => blobKeeper(platform).clear(), gaveUp: null },
    'enforce-retention': retention(platform).job,
  }
}
