import { Refusal } from '../../platform/refusal'

const exportAgain = 'Export it as MP3 (128 kbit/s) or M4A and upload that.'

/** The refusal for what a file turned out to be. */
export function refusalFor(found: string, codec = 'unknown'): Refusal {
  switch (found) {
    case 'empty':
      return new Refusal(
        'The file is empty',
        'It holds 0 bytes.',
        'Look whether the export has finished, then upload it again.',
      )
    case 'cut in its tag':
      return new Refusal(
        'The file breaks off within its tags',
        'Its tags announce more bytes than it has, so none of its sound is here.',
        'Upload it again; if that does not help, export it again.',
      )
    case 'lost':
      return new Refusal(
        'The upload is not here any more',
        'Its bytes were taken away before they were read.',
        'Upload the file again.',
      )
    case 'unreadable':
      return new Refusal(
        'The file could not be read',
        'It was tried several times; something in it ends the reading each time.',
        'Export it anew, and upload that.',
      )
    case 'text':
      return new Refusal(
        'This is a text file, not sound',
        'Its content is text, whatever its name ends in.',
        'Choose the audio file.',
      )
    case 'film':
      return new Refusal('This is a film', 'It holds moving pictures; an episode takes sound here.', exportAgain)
    case 'no sound':
      return new Refusal(
        'There is no sound in this file',
        'It is built like an audio file, and nothing in it could be decoded; it may be cut short.',
        'Export it again and upload that.',
      )
    case 'other codec':
      return new Refusal(
        'Most apps cannot play this file',
        `Its sound is coded as ${codec}; an M4A for listening apps holds AAC.`,
        'Upload it here, and it is encoded.',
      )
    default:
      return new Refusal(
        'This is not a sound file we know',
        'Its content is neither MP3, M4A, WAV, FLAC, Ogg nor another kind that can be decoded here, whatever its name ends in.',
        exportAgain,
      )
  }
}
