package sound

// The checksums of FLAC frames (RFC 9639, 9.1.8 and 9.3): polynomials
// x⁸+x²+x+1 and x¹⁶+x¹⁵+x²+1, from zero.
var (
	crc8Table  [256]uint8
	crc16Table [256]uint16
)

func init() {
	for i := range 256 {
		a, b := uint8(i), uint16(i)<<8
		for range 8 {
			a = a<<1 ^ a>>7*0x07
			b = b<<1 ^ b>>15*0x8005
		}
		crc8Table[i], crc16Table[i] = a, b
	}
}

func crc8(data []byte) uint8 {
	sum := uint8(0)
	for _, b := range data {
		sum = crc8Table[sum^b]
	}
	return sum
}

func crc16(data []byte) uint16 {
	sum := uint16(0)
	for _, b := range data {
		sum = sum<<8 ^ crc16Table[uint8(sum>>8)^b]
	}
	return sum
}
