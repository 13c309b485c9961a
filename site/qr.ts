import QRCode from 'qrcode'

/** A QR code (ISO/IEC 18004) of words, as an SVG image; its light and dark stay light and dark in every theme, as cameras want them. */
export const qrImage = (words: string): Promise<string> =>
  QRCode.toString(words, { type: 'svg', errorCorrectionLevel: 'M', margin: 4 })
