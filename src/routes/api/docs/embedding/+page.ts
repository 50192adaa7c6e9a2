export const csr = false;
