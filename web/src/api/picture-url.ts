/** Where a picture is, as it is kept or small. */
export const pictureUrl = (job: string, id: string, small: boolean): string =>
  `/api/jobs/${job}/pictures/${id}${small ? '/small' : ''}`
