// Each of these names its characters by unicode-range: the browser loads a script's file only when a page has such text.
import '@fontsource/source-sans-3/400.css';
import '@fontsource/source-sans-3/600.css';
import '@fontsource/ibm-plex-mono/400.css';
import '@fontsource/ibm-plex-mono/600.css';
import '@fontsource/noto-sans/400.css';
import '@fontsource/noto-sans-hebrew/400.css';
import '@fontsource/noto-sans-arabic/400.css';
