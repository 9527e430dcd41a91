// Where the small picture of a file is, which the server has made of it.
export const smallPicture = (file: string): string => `/api/public/files/${file}/small`;
