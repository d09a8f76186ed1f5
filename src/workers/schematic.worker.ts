// The layout library is a worker by itself: it answers the messages of its own client, see `SchematicClient`.
import 'elkjs/lib/elk-worker.js';
