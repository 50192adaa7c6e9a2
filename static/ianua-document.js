// <ianua-document src="https://site/d/slug" form="text|button|cover|card|frame" press="page|tab|here|save" words width height start>:
// a document of an Ianua site on any website. What stands inside shows where there is no script, or the document is not open to everyone.
(() => {
	if (customElements.get('ianua-document')) return;
	const css = `:host{display:inline}:host([form=card]),:host([form=frame]){display:block}a{color:inherit}
.button{display:inline-block;padding:.5em 1.1em;border-radius:3px;background:#1c6a61;color:#fff;text-decoration:none;font-weight:600}
.cover,.card{text-decoration:none}img{max-width:100%;height:auto;border:1px solid #d9d1c1;background:#fff;display:block}
.card{display:flex;gap:16px;padding:12px;border:1px solid #d9d1c1;border-radius:3px}.card img{width:96px;flex:none;align-self:start}
strong{display:block}small{opacity:.75}iframe{width:100%;border:1px solid #d9d1c1;box-sizing:border-box}`;
	class IanuaDocument extends HTMLElement {
		static observedAttributes = ['src', 'form', 'press', 'words', 'width', 'height', 'start'];
		connectedCallback() {
			this.draw();
		}
		attributeChangedCallback() {
			if (this.isConnected) this.draw();
		}
		async draw() {
			const mine = (this.turn = (this.turn || 0) + 1);
			const root = this.shadowRoot || this.attachShadow({ mode: 'open' });
			if (!root.firstChild) root.append(document.createElement('slot'));
			let src;
			try {
				src = new URL(this.getAttribute('src'), location.href);
			} catch {
				return;
			}
			const path = /^\/d\/[a-z0-9-]+/.exec(src.pathname);
			if (!/^https?:$/.test(src.protocol) || !path) return;
			const at = src.origin + path[0];
			// only what is open to everyone has an answer there
			const told = await fetch(`${src.origin}/oembed?url=${encodeURIComponent(at)}`).then(
				(answer) => (answer.ok ? answer.json() : null),
				() => null
			);
			if (!told || mine !== this.turn) return;
			const form = this.getAttribute('form') || 'text';
			const press = this.getAttribute('press') || 'page';
			const words = this.getAttribute('words') || told.title;
			const start = Number(this.getAttribute('start')) || 0;
			const make = (tag, set, ...inside) => {
				const made = Object.assign(document.createElement(tag), set);
				made.append(...inside);
				return made;
			};
			const style = make('style', { textContent: css });
			if (form === 'frame') {
				const ratio = told.height / told.width;
				const frame = make('iframe', {
					src: `${src.origin}/embed/${path[0].slice(3)}${start ? `#page=${start}` : ''}`,
					title: words,
					loading: 'lazy',
					allow: 'fullscreen'
				});
				const width = this.getAttribute('width');
				if (width) frame.style.width = /%$/.test(width) ? width : `${width}px`;
				const height = Number(this.getAttribute('height'));
				if (height) frame.style.height = `${height}px`;
				else frame.style.aspectRatio = `1/${ratio.toFixed(4)}`;
				root.replaceChildren(style, frame);
				return;
			}
			const href = press === 'save' ? `${at}/file?save` : press === 'tab' || press === 'here' ? `${at}/read${start ? `#page=${start}` : ''}` : at;
			const link = make('a', { href, className: form, rel: 'noopener', target: press === 'tab' ? '_blank' : '' });
			const picture = (width) =>
				make('img', { src: `${at}/cover/${width > 300 ? 600 : 300}.webp`, alt: form === 'cover' ? words : '', loading: 'lazy', width });
			if (form === 'cover') link.append(picture(Number(this.getAttribute('width')) || 300));
			else if (form === 'card')
				link.append(picture(96), make('span', {}, make('strong', { textContent: words }), make('small', { textContent: `${told.provider_name}, PDF` })));
			else link.append(words);
			root.replaceChildren(style, link);
		}
	}
	customElements.define('ianua-document', IanuaDocument);
})();
