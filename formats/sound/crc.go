package sound

// The checksums of FLAC frames (RFC 9639, 9.1.8 and 9.3): polynomials
// x⁸+x²+x+1 and x¹⁶+x¹⁵+x²+1, from zero.
var (
	crc8Table  [256]uint8
	crc16Table [4][256]uint16 // by how many bytes follow
)

func init() {
	for i := range 256 {
		a, b := uint8(i), uint16(i)<<8
		for range 8 {
			a = a<<1 ^ a>>7*0x07
			b = b<<1 ^ b>>15*0x8005
		}
		crc8Table[i], crc16Table[0][i] = a, b
	}
	for n := range 3 {
		for i, b := range crc16Table[n] {
			crc16Table[n+1][i] = b<<8 ^ crc16Table[0][b>>8]
		}
	}
}

func crc8(data []byte) uint8 {
	sum := uint8(0)
	for _, b := range data {
		sum = crc8Table[sum^b]
	}
	return sum
}

// crc16 takes four bytes at a time, whose parts of the sum are independent.
func crc16(data []byte) uint16 {
	t, sum := &crc16Table, uint16(0)
	for ; len(data) >= 4; data = data[4:] {
		sum = t[3][data[0]^uint8(sum>>8)] ^ t[2][data[1]^uint8(sum)] ^ t[1][data[2]] ^ t[0][data[3]]
	}
	for _, b := range data {
		sum = sum<<8 ^ t[0][uint8(sum>>8)^b]
	}
	return sum
}
