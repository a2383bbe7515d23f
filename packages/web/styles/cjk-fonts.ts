// Loaded when the first page stands; each file of a font only when a page has its characters.
import '@fontsource-variable/noto-sans-jp/index.css';
import '@fontsource-variable/noto-sans-kr/index.css';
import '@fontsource-variable/noto-sans-sc/index.css';
