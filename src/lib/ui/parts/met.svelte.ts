// The words of the house that were understood since the desk was opened; those of before are in a cookie.
export const met: string[] = $state([]);
