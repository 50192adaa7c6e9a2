// What a reading room does before any of its script is there: on a slow line that takes seconds. It runs in the page as it stands here, by itself.

/**
 * Shows the page that the address names (RFC 8118, section 3; fragment.ts reads all of it later): its number in the sill, and its picture in place of
 * the first page's.
 */
export const earlyPage = `(() => {
	const image = document.querySelector('.standin img');
	const field = document.querySelector('.sill .page input');
	if (!image || !field) return;
	let said = '';
	for (const part of location.hash.slice(1).split(/[&#]/)) {
		const equals = part.indexOf('=');
		if (part.slice(0, equals).toLowerCase() === 'page') said = part.slice(equals + 1);
	}
	const page = /^\\d{1,7}$/.test(said) ? Math.min(Number(said), Number(image.dataset.pages)) : 0;
	if (page < 2) return;
	const turned = (address) => address.replaceAll('/leaf/1.webp', '/leaf/' + page + '.webp');
	image.srcset = turned(image.srcset);
	image.src = turned(image.getAttribute('src'));
	field.value = String(page);
})();`;
