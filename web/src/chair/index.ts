export { Ring } from "./Ring";
export { ToTheChair } from "./ToTheChair";
export { Photo } from "./Photo";
export { smallPicture } from "./smallPicture";
