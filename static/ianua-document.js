// <ianua-document src="https://site/d/slug" form="text|button|cover|card|frame" press="page|over|tab|here|save" words width height start theme colour background way fit tools pass>:
// a document of an Ianua site on any website. What stands inside shows where there is no script, or the document is not open to everyone.
// It says what happens in its frame by events: ianua:opened, ianua:page, ianua:saved, ianua:resize, ianua:refused (ianua-document.d.ts).
// pass="/an/address/here": there the website's own server answers a pass (JWT) for whoever is signed in, by which the frame opens for them.
// <ianua-list src="https://site" folder topic order most show="list|covers|cards" press more none>: the documents that are open and listed there.
(() => {
	if (customElements.get('ianua-document')) return;
	const css = `:host{display:inline}:host([form=card]),:host([form=frame]){display:block}a{color:inherit}
.button{display:inline-block;padding:.5em 1.1em;border-radius:3px;background:#1c6a61;color:#fff;text-decoration:none;font-weight:600}
.cover,.card{text-decoration:none}img{max-width:100%;height:auto;border:1px solid #d9d1c1;background:#fff;display:block}
.card{display:flex;gap:16px;padding:12px;border:1px solid #d9d1c1;border-radius:3px}.card img{width:96px;flex:none;align-self:start}
dialog{width:min(1100px,96vw);height:94vh;padding:0;border:1px solid #d9d1c1;display:grid;grid-template-rows:auto 1fr}dialog iframe{border:0;height:100%}dialog button{justify-self:end;margin:6px;padding:.3em 1em;font:inherit}
ul{list-style:none;margin:0;padding:0}ul.list{display:grid;gap:.4em}ul.covers{display:grid;grid-template-columns:repeat(auto-fill,minmax(150px,1fr));gap:24px 18px}ul.cards{display:grid;gap:12px}
.more{margin-top:1em;padding:.5em 1.1em;font:inherit}strong{display:block}small{opacity:.75}iframe{width:100%;border:1px solid #d9d1c1;box-sizing:border-box}`;
	// a sheet of its own, which no policy of the website around it refuses
	const sheet = new CSSStyleSheet();
	sheet.replaceSync(css);
	const rootOf = (element) => {
		if (!element.shadowRoot) {
			element.attachShadow({ mode: 'open' }).append(document.createElement('slot'));
			element.shadowRoot.adoptedStyleSheets = [sheet];
		}
		return element.shadowRoot;
	};
	const addressOf = (element) => {
		try {
			const src = new URL(element.getAttribute('src'), location.href);
			return /^https?:$/.test(src.protocol) ? src : null;
		} catch {
			return null;
		}
	};
	const make = (tag, set, ...inside) => {
		const made = Object.assign(document.createElement(tag), set);
		made.append(...inside);
		return made;
	};
	const told = (address) =>
		fetch(address).then(
			(answer) => (answer.ok ? answer.json() : null),
			() => null
		);
	class IanuaDocument extends HTMLElement {
		static observedAttributes = ['src', 'form', 'press', 'words', 'width', 'height', 'start', 'theme', 'colour', 'background', 'way', 'fit', 'tools', 'pass'];
		connectedCallback() {
			this.hears ??= (event) => this.told(event);
			addEventListener('message', this.hears);
			this.draw();
		}
		disconnectedCallback() {
			removeEventListener('message', this.hears);
		}
		attributeChangedCallback() {
			if (this.isConnected) this.draw();
		}
		// what the frame says: what happens in it, that it asks for a pass, what became of one; nobody else is listened to
		async told({ source, origin, data }) {
			if (!this.frame || source !== this.frame.contentWindow || origin !== this.from || !data) return;
			const { type, ...detail } = data;
			if (/^ianua:(opened|page|saved|resize|refused)$/.test(type))
				this.dispatchEvent(new CustomEvent(type, { detail: type === 'ianua:refused' ? data.why : detail, bubbles: true, composed: true }));
			// what shows no document is as high as it is
			if (type === 'ianua:resize' && detail.height > 0 && !this.getAttribute('height')) {
				this.frame.style.aspectRatio = '';
				this.frame.style.height = `${Math.min(detail.height, 400)}px`;
			}
			const address = this.getAttribute('pass');
			if (type !== 'ianua:pass-wanted' || !address) return;
			const pass = await fetch(address, { headers: { accept: 'application/jwt, text/plain' } }).then(
				(answer) => (answer.ok ? answer.text() : null),
				() => null
			);
			if (pass) this.frame.contentWindow.postMessage({ type: 'ianua:pass', pass: pass.trim() }, this.from);
		}
		async draw() {
			const mine = (this.turn = (this.turn || 0) + 1);
			const root = rootOf(this);
			const src = addressOf(this);
			const path = src && /^\/d\/[a-z0-9-]+/.exec(src.pathname);
			if (!path) return;
			const at = src.origin + path[0];
			const form = this.getAttribute('form') || 'text';
			const keyed = form === 'frame' && this.hasAttribute('pass');
			// only what is open to everyone has an answer there
			const open = this.listed || (await told(`${src.origin}/oembed?url=${encodeURIComponent(at)}`));
			if (mine !== this.turn || !(open || keyed)) return;
			const press = this.getAttribute('press') || 'page';
			const words = this.getAttribute('words') || (open ? open.title : this.textContent.trim());
			const start = Number(this.getAttribute('start')) || 0;
			const asked = new URLSearchParams(
				['theme', 'colour', 'background', 'way', 'fit', 'tools'].flatMap((name) => (this.hasAttribute(name) ? [[name, this.getAttribute(name)]] : []))
			);
			const embed = `${src.origin}/embed/${path[0].slice(3)}${asked.size ? `?${asked}` : ''}${start ? `#page=${start}` : ''}`;
			if (form === 'frame') {
				const ratio = open ? open.height / open.width : 1.4;
				const frame = make('iframe', {
					src: embed,
					title: words,
					loading: 'lazy',
					allow: 'fullscreen'
				});
				const width = this.getAttribute('width');
				if (width) frame.style.width = /%$/.test(width) ? width : `${width}px`;
				const height = Number(this.getAttribute('height'));
				if (height) frame.style.height = `${height}px`;
				else frame.style.aspectRatio = `1/${ratio.toFixed(4)}`;
				this.frame = frame;
				this.from = src.origin;
				root.replaceChildren(frame);
				return;
			}
			const href = press === 'save' ? `${at}/file?save` : press === 'tab' || press === 'here' ? `${at}/read${start ? `#page=${start}` : ''}` : at;
			const link = make('a', { href, className: form, rel: 'noopener', target: press === 'tab' ? '_blank' : '' });
			const picture = (width) =>
				make('img', { src: `${at}/cover/${width > 300 ? 600 : 300}.webp`, alt: form === 'cover' ? words : '', loading: 'lazy', width });
			if (form === 'cover') link.append(picture(Number(this.getAttribute('width')) || 300));
			else if (form === 'card')
				link.append(picture(96), make('span', {}, make('strong', { textContent: words }), make('small', { textContent: `${open.provider_name}, PDF` })));
			else link.append(words);
			const colour = /^#?([0-9a-f]{6})$/i.exec(this.getAttribute('colour') || '');
			if (colour && form === 'button') {
				const [r, g, b] = [0, 2, 4].map((i) => parseInt(colour[1].slice(i, i + 2), 16));
				link.style.background = `#${colour[1]}`;
				// words that can be read on it
				link.style.color = r * 0.3 + g * 0.59 + b * 0.11 > 128 ? '#000' : '#fff';
			}
			if (press === 'over')
				link.onclick = (event) => {
					if (event.ctrlKey || event.metaKey || event.shiftKey) return;
					event.preventDefault();
					const frame = make('iframe', { src: embed, title: words, allow: 'fullscreen' });
					const close = make('button', { textContent: this.getAttribute('close') || 'Close', type: 'button', autofocus: true });
					const over = make('dialog', { onclose: () => over.remove() }, close, frame);
					close.onclick = () => over.close();
					[this.frame, this.from] = [frame, src.origin];
					root.append(over);
					over.showModal();
				};
			root.replaceChildren(link);
		}
	}
	class IanuaList extends HTMLElement {
		static observedAttributes = ['src', 'folder', 'topic', 'order', 'most', 'show', 'press', 'more', 'none'];
		connectedCallback() {
			this.draw();
		}
		attributeChangedCallback() {
			if (this.isConnected) this.draw();
		}
		async draw() {
			const mine = (this.turn = (this.turn || 0) + 1);
			const root = rootOf(this);
			const src = addressOf(this);
			if (!src) return;
			const show = /^(covers|cards)$/.exec(this.getAttribute('show') || '')?.[0] || 'list';
			// several are told apart by semicolons
			const each = (name) => (this.getAttribute(name) || '').split(';').map((value) => [name, value.trim()]);
			const asked = ['folder', 'topic', 'order', 'most'].flatMap(each).filter(([, value]) => value);
			const list = make('ul', { className: show });
			const more = make('button', { className: 'more', type: 'button', textContent: this.getAttribute('more') || 'More' });
			const go = async (from) => {
				const part = await told(`${src.origin}/documents.json?${new URLSearchParams([...asked, ['from', from]])}`);
				// nothing came: what stands inside stays, or what is there already
				if (mine !== this.turn || !part) return;
				for (const item of part.items) {
					const one = document.createElement('ianua-document');
					const set = {
						src: item.href,
						form: { list: 'text', covers: 'cover', cards: 'card' }[show],
						press: this.getAttribute('press') || 'page',
						width: '150'
					};
					for (const [name, value] of Object.entries(set)) one.setAttribute(name, value);
					one.listed = { title: item.title, provider_name: part.site, width: 1, height: item.ratio || 1.4 };
					list.append(make('li', {}, one));
				}
				more.hidden = part.next === null;
				more.onclick = () => go(part.next);
				if (list.firstChild) root.replaceChildren(list, more);
				else root.replaceChildren(make('p', { textContent: this.getAttribute('none') || 'Nothing is listed here.' }));
			};
			await go(0);
		}
	}
	customElements.define('ianua-document', IanuaDocument);
	customElements.define('ianua-list', IanuaList);
})();
