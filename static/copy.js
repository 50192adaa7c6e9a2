// Copies an address, or hands it on to another program, where the browser can; without it the address stands there in words.
for (const button of document.querySelectorAll('[data-copy]')) {
	if (!navigator.clipboard) continue;
	button.hidden = false;
	const words = button.textContent;
	button.setAttribute('aria-live', 'polite');
	button.addEventListener('click', async () => {
		await navigator.clipboard.writeText(button.dataset.copy);
		button.textContent = button.dataset.copied;
		setTimeout(() => (button.textContent = words), 2500);
	});
}
for (const button of document.querySelectorAll('[data-share]')) {
	if (!navigator.share) continue;
	button.hidden = false;
	// closed without choosing, nothing is to be said
	button.addEventListener('click', () => navigator.share({ title: button.dataset.title, url: button.dataset.share }).catch(() => {}));
}
