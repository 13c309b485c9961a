const endings: Readonly<Record<string, string>> = { 'image/jpeg': 'jpg', 'image/png': 'png' }

/** The last part of a picture's address. */
export const pictureName = ({ id, type }: { id: string; type: string }): string => `${id}.${endings[type]}`

/** Where the world finds a picture that something public uses. */
export const publicPictureAddress = (publicUrl: string, picture: { id: string; type: string }): string =>
  `${publicUrl}/media/artwork/${pictureName(picture)}`

/** Where the studio finds any picture; with sign-in. Found pictures are JPEG. */
export const studioPictureAddress = ({ id, type = 'image/jpeg' }: { id: string; type?: string }): string =>
  `/api/v1/pictures/${pictureName({ id, type })}`
