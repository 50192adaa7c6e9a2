import type { Attachment } from 'svelte/attachments';

/** Px from the window's edge at which a picture is fetched: a row or two ahead. What browsers take for near by themselves is a whole list. */
const ahead = '240px 0px';

/** A picture that is fetched as it comes near to being seen. Of a list's first rows say `src` itself, so that they need not wait for the script. */
export const near =
	(src: string): Attachment<HTMLImageElement> =>
	(img) => {
		const observer = new IntersectionObserver(
			([seen]) => {
				if (!seen?.isIntersecting) return;
				img.src = src;
				observer.disconnect();
			},
			{ rootMargin: ahead }
		);
		observer.observe(img);
		return () => observer.disconnect();
	};
