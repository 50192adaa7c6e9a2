// Files that are held over the desk, before they are let go: the desk and the page being written show where they can be.

export const held = $state({ files: 0 });

/** Whether what is drawn over the page are files. */
export const holdsFiles = (event: DragEvent): boolean => event.dataTransfer?.types.includes('Files') ?? false;
