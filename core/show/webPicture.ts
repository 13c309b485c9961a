/** Widths in which a picture is there as WebP, drawn when it is first asked for. */
export const webPictureWidthsPx = [160, 480, 960, 1600] as const

/** The address of a picture as WebP, as wide and as high as that at most, by the address of the whole. */
export const webPictureAt = (address: string, px: (typeof webPictureWidthsPx)[number]): string =>
  address.replace(/\.[a-z]+$/, `-${px}.webp`)

/** What a browser chooses from for a picture that is shown so wide, with room for finer screens. */
export function webPictureSet(address: string, widthPx: number): string {
  const wanted = webPictureWidthsPx.filter((_px, at) => at === 0 || webPictureWidthsPx[at - 1]! < widthPx * 2)
  return wanted.map(px => `${webPictureAt(address, px)} ${px}w`).join(', ')
}
