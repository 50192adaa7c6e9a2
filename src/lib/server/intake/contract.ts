// The API of what comes in: uploads, web addresses, pictures, and what the check offers: each operation with what it takes and gives. Requests are checked by these schemas, and openapi.json is made of them.
import { Type } from '@sinclair/typebox';
import { DocumentAnswer, statuses } from '../documents/contract';
import { documentPath, Instant, listOf, Nothing, nullable, oneOf, type Operation, Sha256 } from '../http/contract';

export const KnownQuery = Type.Object({ sha256: { ...Sha256, description: 'SHA-256 of the file, in hexadecimal' } }, { additionalProperties: false });

export const UnlockBody = Type.Object({ password: Type.String({ minLength: 1, maxLength: 300 }) }, { additionalProperties: false });

export const IconBody = Type.Object({ icon: Type.String({ minLength: 1, maxLength: 80 }) }, { additionalProperties: false });

export const FromWeb = Type.Object(
	{
		url: Type.String({ minLength: 8, maxLength: 2000 }),
		title: Type.Optional(Type.String({ maxLength: 200 })),
		folder: Type.Optional(Type.String({ maxLength: 200 })),
		watch: Type.Optional(Type.Boolean())
	},
	{ additionalProperties: false }
);

export const WatchChange = Type.Object({ watch: Type.Boolean() }, { additionalProperties: false });

export const SourceAction = Type.Object({ do: oneOf(['compare', 'beside', 'take', 'leave']) }, { additionalProperties: false });

export const IntakeStop = Type.Object({ stop: Type.Array(Type.String({ format: 'uuid' }), { minItems: 1, maxItems: 1000 }) }, { additionalProperties: false });

export const IntakeAnswer = listOf(
	Type.Object({
		id: Type.String({ format: 'uuid' }),
		name: Type.String(),
		bytes: Type.Integer(),
		state: oneOf(['uploading', 'checking', 'in', 'refused', 'stopped']),
		arrived: Type.Integer({ description: 'bytes here' }),
		trouble: nullable(Type.Object({ code: Type.String(), text: Type.String() })),
		document: nullable(Type.Object({ slug: Type.String(), title: Type.String(), condition: oneOf(statuses) })),
		edition: Type.Boolean(),
		at: Instant
	})
);

const PictureAnswer = Type.Object({ picture: Sha256, width: Type.Integer(), height: Type.Integer() });

export const PictureTurned = Type.Object(
	{ picture: Sha256, degrees: Type.Integer({ minimum: -180, maximum: 180, description: 'to the right; 0 gives the picture itself' }) },
	{ additionalProperties: false }
);

export const intakeOperations = [
	{ method: 'post', path: `${documentPath}/clean`, words: 'Makes an edition without active content', status: 201, answer: DocumentAnswer },
	{ method: 'post', path: `${documentPath}/unlock`, words: 'Gives the password of a locked file, once', body: UnlockBody, status: 201, answer: DocumentAnswer },
	{
		method: 'post',
		path: `${documentPath}/cover`,
		words: 'Sets the cover to a picture (multipart) or an icon (JSON)',
		body: IconBody,
		form: [],
		status: 200,
		answer: DocumentAnswer
	},
	{
		method: 'patch',
		path: `${documentPath}/source`,
		words: 'Watches the web address or stops watching',
		body: WatchChange,
		status: 200,
		answer: DocumentAnswer
	},
	{
		method: 'post',
		path: `${documentPath}/source`,
		words: 'Compares with the web address now, brings the changed file in beside the edition in force, takes it as the new edition, or leaves it alone',
		body: SourceAction,
		status: 200,
		answer: DocumentAnswer
	},
	{ method: 'post', path: '/from-web', words: 'Fetches a PDF from a web address', body: FromWeb, status: 201, answer: DocumentAnswer },
	{ method: 'get', path: '/intake', words: 'Files on their way in', status: 200, answer: IntakeAnswer },
	{ method: 'patch', path: '/intake', words: 'Stops files on their way', body: IntakeStop, status: 200, answer: Nothing },
	{ method: 'post', path: '/intake', words: 'Begins an upload by the tus protocol 1.0', status: 201, answer: null },
	{ method: 'patch', path: '/intake/{id}', words: 'Sends bytes of an upload (tus 1.0)', status: 204, answer: null },
	{ method: 'delete', path: '/intake/{id}', words: 'Ends an upload (tus 1.0)', status: 204, answer: null },
	{ method: 'delete', path: '/intake', words: 'Takes what is finished out of the tray', status: 200, answer: Nothing },
	{
		method: 'get',
		path: '/intake/known',
		words: 'Documents with the same bytes',
		query: KnownQuery,
		status: 200,
		answer: listOf(Type.Object({ slug: Type.String(), title: Type.String(), inForce: Type.Boolean() }))
	},
	{
		method: 'get',
		path: '/icons',
		words: 'Icons for covers, by a word',
		query: Type.Object({ q: Type.String({ maxLength: 80, description: 'what the icon shows, in English' }) }),
		status: 200,
		answer: listOf(Type.Object({ name: Type.String(), svg: Type.String() }))
	},
	{
		method: 'post',
		path: '/pictures',
		words: 'Keeps a picture for pages or the site’s mark',
		form: [],
		status: 201,
		answer: PictureAnswer
	},
	{
		method: 'post',
		path: '/pictures/turn',
		words: 'Makes another picture of one that is kept, turned by so many degrees; what is left over at the corners lets through',
		body: PictureTurned,
		status: 201,
		answer: PictureAnswer
	}
] as const satisfies readonly Operation[];
