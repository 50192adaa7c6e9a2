/** Attached to what stands at the foot of the desk (a bar of commands, the shelf): notices and the tray stay above it. */
export function foot(element: HTMLElement): () => void {
	const { style } = document.documentElement;
	const observer = new ResizeObserver(() => style.setProperty('--foot', `${element.offsetHeight}px`));
	observer.observe(element);
	return () => {
		observer.disconnect();
		style.removeProperty('--foot');
	};
}
