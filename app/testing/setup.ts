/** What the browser has and the test environment lacks. */
import 'fake-indexeddb/auto'
