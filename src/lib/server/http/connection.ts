// Between the web server and kit.

/** In which the web server hands on the address that a request comes from; what is sent from outside under that name is overwritten. */
export const connectionHeader = 'x-ianua-connection';
