// Opens the file chooser of the desk; the layout puts the real ones in.
export const chooser = { open: () => {}, openFolder: () => {} };
