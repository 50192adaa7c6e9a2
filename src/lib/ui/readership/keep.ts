/** Saves a file under a name. */
export function keep(name: string, content: Blob): void {
	const link = document.createElement('a');
	link.href = URL.createObjectURL(content);
	link.download = name;
	link.click();
	setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** Saves a chart as a picture, on the ground of the page. */
export function keepPng(name: string, canvas: HTMLCanvasElement): void {
	const whole = document.createElement('canvas');
	[whole.width, whole.height] = [canvas.width, canvas.height];
	// a canvas without another context has this one
	const context = whole.getContext('2d')!;
	context.fillStyle = getComputedStyle(document.body).backgroundColor;
	context.fillRect(0, 0, whole.width, whole.height);
	context.drawImage(canvas, 0, 0);
	whole.toBlob((blob) => blob && keep(`${name}.png`, blob), 'image/png');
}
