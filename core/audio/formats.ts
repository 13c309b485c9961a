/** Media types by ffmpeg's names of formats; those that can be delivered are told by their codec, too. */
const types: Readonly<Record<string, string>> = {
  wav: 'audio/wav',
  w64: 'audio/x-w64',
  flac: 'audio/flac',
  ogg: 'audio/ogg',
  aiff: 'audio/aiff',
  caf: 'audio/x-caf',
  au: 'audio/basic',
  asf: 'audio/x-ms-wma',
  aac: 'audio/aac',
  matroska: 'audio/matroska',
  amr: 'audio/amr',
  ac3: 'audio/ac3',
}

const names: Readonly<Record<string, string>> = {
  'audio/wav': 'WAV',
  'audio/x-w64': 'W64',
  'audio/flac': 'FLAC',
  'audio/ogg': 'Ogg',
  'audio/aiff': 'AIFF',
  'audio/x-caf': 'CAF',
  'audio/basic': 'AU',
  'audio/x-ms-wma': 'WMA',
  'audio/aac': 'AAC without a container',
  'audio/matroska': 'Matroska',
  'audio/amr': 'AMR',
  'audio/ac3': 'AC-3',
}

/**
 * The media type of a sound by its format and codec as ffmpeg names them. `audio/mp4` is AAC in MP4 only, and `audio/mpeg` is
 * told where MP3 frames are walked, since these two go out as they are: all else needs encoding first.
 */
export function soundType(formatName: string, codec: string): string {
  const [format = ''] = formatName.split(',')
  if (format === 'mov') return codec === 'aac' ? 'audio/mp4' : `audio/x-${codec}`.slice(0, 40)
  return (types[format] ?? `audio/x-${codec}`).slice(0, 40)
}

/** What people call it. */
export const formatName = (type: string): string => names[type] ?? type.replace(/^audio\/(x-)?/, '').toUpperCase()
