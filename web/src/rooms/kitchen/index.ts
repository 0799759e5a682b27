export { KitchenRoom } from "./KitchenRoom";
