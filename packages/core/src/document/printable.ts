/** No control characters and no half characters: what is typed goes into files, pages and a database as it is. */
export const PRINTABLE = "^[^\\p{Cc}\\p{Cs}]*$";
